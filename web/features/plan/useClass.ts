import { computed, ref } from 'vue'
import { dayNumber, dayOf, planWeek, type PracticeId } from '#core'
import type { Plan, PracticeEntry, Student } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { count } from '../../words/numbers'
import { studioDay } from '../../words/shown'
import { cardsSent, usualMinutes } from './usePlan'
import { factsOf, readPlanFile } from './usePlanFacts'
import { daysOfWeek, weekdayOf } from './week'

/** Plans that began in the last two weeks are looked at: one of them is running. */
const LOOKED_BACK_DAYS = 13

/** One student of the class, with the plan that runs and what came of it. */
export interface ClassRow {
  readonly student: Student
  readonly plan: Plan
  readonly done: readonly PracticeEntry[]
}

/** The week of everybody who has a plan, and one week given to all of them. */
export function useClass() {
  const studio = useStudio()
  const settings = useSettings()
  const outbox = useOutbox()
  const notices = useNotices()
  const today = studioDay()
  const stretch = { from: dayOf(dayNumber(today) - LOOKED_BACK_DAYS), to: today }
  const week = useLoaded(
    () => today,
    async () => {
      const query = stretch
      const [plans, practice] = await Promise.all([
        call('plans.between', { query }),
        call('practice.between', { query }),
      ])
      // Those that have a plan, whoever was looked at before.
      await Promise.all(
        [...new Set(plans.map(({ studentId }) => studentId))]
          .filter((id) => !studio.student(id))
          .map((id) => studio.loadStudent(id)),
      )
      return { plans, practice }
    },
  )

  const rows = computed<ClassRow[]>(() => {
    const newest = new Map<string, Plan>()
    for (const plan of week.data.value?.plans ?? [])
      if (!newest.has(plan.studentId)) newest.set(plan.studentId, plan)
    return studio.roster.flatMap((student) => {
      const plan = newest.get(student.id)
      if (!plan) return []
      const done = (week.data.value?.practice ?? []).filter(
        ({ studentId, on }) => studentId === student.id && on >= plan.startsOn,
      )
      return [{ student, plan, done }]
    })
  })

  /** So many of so many are planned; undefined while nothing is. */
  const progress = ref<{ done: number; of: number }>()
  let isStopped = false

  /** A week for each of them, made from their own file, with these exercises in it. */
  async function giveToAll(students: readonly Student[], asked: readonly PracticeId[]): Promise<void> {
    isStopped = false
    const given: Plan[] = []
    const skipped: string[] = []
    progress.value = { done: 0, of: students.length }
    try {
      for (const student of students) {
        if (isStopped) break
        const plan = await giveOne(student, asked)
        if (plan) given.push(plan)
        else skipped.push(student.name)
        progress.value = { done: progress.value.done + 1, of: students.length }
      }
    } finally {
      progress.value = undefined
      await week.reload()
    }
    const rest = skipped.length > 0 ? ` Left as they were: ${skipped.join(', ')}.` : ''
    notices.say(`${count(given.length, 'plan')} given.${rest}`, {
      label: UNDO,
      run: async () => {
        for (const { id } of given) await call('plans.remove', { params: { planId: id } })
        await week.reload()
      },
    })
  }

  /** Undefined of somebody for whom nothing can be planned: a pain, or nothing for this instrument. */
  async function giveOne(student: Student, asked: readonly PracticeId[]): Promise<Plan | undefined> {
    const file = await readPlanFile(student.id)
    const before = await call('plans.list', { params: { studentId: student.id } })
    const systemId = studio.systemOf(student.instrument ?? undefined, student)
    const facts = factsOf(student, file, { schools: settings.schoolsOf(student), systemId })
    const [last] = before
    const weekdays = last?.weekdays ?? [1, 2, 3, 4, 5, 6]
    const minutesADay = last?.minutesADay ?? usualMinutes(facts.age)
    const pieces = last?.pieces ?? []
    const { cards } = planWeek(
      today,
      { ...facts, pieces, asked },
      { days: daysOfWeek(today).filter((day) => weekdays.includes(weekdayOf(day))), minutesADay },
    )
    if (!cards.some(({ exerciseId }) => asked.includes(exerciseId))) return undefined
    const body = {
      startsOn: today,
      family: student.family,
      instrumentId: student.instrument?.id ?? null,
      minutesADay,
      weekdays: [...weekdays],
      cards: cardsSent(cards),
      pieces: [...pieces],
      after: before.find((plan) => plan.startsOn === today)?.id ?? null,
    }
    return outbox.send(
      'plans.give',
      { params: { studentId: student.id }, body },
      { what: `the plan of ${student.name}` },
    )
  }

  return {
    rows,
    isKnown: computed(() => week.data.value !== undefined),
    progress,
    giveToAll,
    stop: () => (isStopped = true),
  }
}
