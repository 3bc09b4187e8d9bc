import { computed, ref } from 'vue'
import { dayNumber, dayOf, type FamilyId, type ExerciseId } from '#core'
import type { Answer, Plan, Student } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { count, listed } from '../../words/numbers'
import { studioDay } from '../../words/shown'
import { factsOf, readPlanFile } from './usePlanFacts'
import { isWithinWeek } from './week'
import { draftOf, plannedWeek, unchangedWeek } from './week-edit'

/** Plans that began in the last two weeks are looked at: one of them is running. */
const LOOKED_BACK_DAYS = 13
/** So many are looked at at once. */
const PAGE = 50

/** One student of the class, with the plan that runs and what came of it. */
export type ClassRow = Answer<'practice.class'>['rows'][number]

/** The week of everybody who has a plan, and one exercise given to all of them. */
export function useClass() {
  const studio = useStudio()
  const settings = useSettings()
  const outbox = useOutbox()
  const notices = useNotices()
  const today = studioDay()
  const family = ref<FamilyId | 'all'>('all')
  const limit = ref(PAGE)
  const week = useLoaded(
    () => `${family.value} ${limit.value}`,
    () =>
      call('practice.class', {
        query: {
          from: dayOf(dayNumber(today) - LOOKED_BACK_DAYS),
          to: today,
          limit: limit.value,
          ...(family.value !== 'all' && { family: family.value }),
        },
      }),
  )
  const rows = computed<readonly ClassRow[]>(() => week.data.value?.rows ?? [])

  /** So many of so many are planned; undefined while nothing is. */
  const progress = ref<{ done: number; of: number }>()
  let isStopped = false

  /** These exercises in the running week of each of them, or in one that is made from their own file. */
  async function giveToAll(students: readonly Student[], asked: readonly ExerciseId[]): Promise<void> {
    isStopped = false
    const given: Plan[] = []
    const skipped: string[] = []
    progress.value = { done: 0, of: students.length }
    try {
      for (const student of students) {
        if (isStopped) break
        const plan = await giveOne(student, asked).catch(withoutRefusal)
        if (plan) given.push(plan)
        else skipped.push(student.name)
        progress.value = { done: progress.value.done + 1, of: students.length }
      }
    } finally {
      progress.value = undefined
      await week.reload()
    }
    const rest = skipped.length > 0 ? ` Left as they were: ${listed(skipped)}.` : ''
    notices.say(`${count(given.length, 'plan')} given.${rest}`, {
      label: UNDO,
      run: async () => {
        for (const { id } of given) await call('plans.remove', { params: { planId: id } })
        await week.reload()
      },
    })
  }

  /** Undefined of somebody for whom nothing can be added: a pain, nothing for this instrument, no minutes, or it is there. */
  async function giveOne(student: Student, asked: readonly ExerciseId[]): Promise<Plan | undefined> {
    const file = await readPlanFile(student.id)
    const plans = await call('plans.list', { params: { studentId: student.id } })
    const systemId = studio.systemOf(student.instrument ?? undefined, student)
    const facts = factsOf(student, file, { schools: settings.schoolsOf(student), systemId })
    const current = plans.find((plan) => isWithinWeek(plan.startsOn, today))
    const edit = {
      ...unchangedWeek(current?.startsOn ?? today, current, plans[0], facts.age),
      asked,
    }
    const made = plannedWeek(edit, current, facts, today)
    const isThere = ({ cards }: Pick<Plan, 'cards'>) =>
      cards.filter(({ exerciseId }) => asked.includes(exerciseId)).length
    if (isThere({ cards: [...made.cards] }) <= isThere(current ?? { cards: [] })) return undefined
    const body = draftOf(student, edit, made, current)
    return outbox.send(
      'plans.give',
      { params: { studentId: student.id }, body },
      { what: `the plan of ${student.name}` },
    )
  }

  return {
    family,
    rows,
    total: computed(() => week.data.value?.total),
    more: () => (limit.value += PAGE),
    reload: week.reload,
    progress,
    giveToAll,
    stop: () => (isStopped = true),
  }
}

/** What the server refuses of one student leaves the others theirs. */
function withoutRefusal(error: unknown): undefined {
  if (error instanceof ApiProblem && !error.isPassing) return undefined
  throw error
}
