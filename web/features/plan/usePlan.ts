import { computed, ref, type Ref } from 'vue'
import { isPracticedOn, type ExerciseId, type PlannedCard } from '#core'
import type { Plan, Student } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import type { Loaded } from '../../api/useLoaded'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useOfStudent } from '../../stores/useOfStudent'
import { shown, studioDay } from '../../words/shown'
import type { FileFacts } from './usePlanFacts'
import { daysOfWeek, isWithinWeek, weekdayOf } from './week'
import { draftOf, plannedWeek, unchangedWeek, type WeekEdit } from './week-edit'

const LONGEST = 120
const MOST_UNDONE = 60

/** The week that is being planned: as the planner has it, changed by the teacher’s hand, and given. */
export function usePlan(
  student: Ref<Student | undefined>,
  facts: Ref<FileFacts | undefined>,
  plans: Loaded<Plan[]>,
) {
  const outbox = useOutbox()
  const notices = useNotices()
  const today = studioDay()
  const kept = useOfStudent<WeekEdit | null>(
    'jadefell.plan',
    computed(() => student.value?.id),
    null,
  )
  /** What was changed in a week that is over is let go. */
  const draft = computed(() => (kept.value && isWithinWeek(kept.value.startsOn, today) ? kept.value : null))
  const current = computed(() => plans.data.value?.find((plan) => isWithinWeek(plan.startsOn, today)))
  /** A week begins with the day on which it is given: that of the lesson, mostly. */
  const startsOn = computed(() => draft.value?.startsOn ?? current.value?.startsOn ?? today)
  /** The plan of this week, where it is given; and the newest before it, from which the next one begins. */
  const given = computed(() => plans.data.value?.find((plan) => plan.startsOn === startsOn.value))
  const before = computed(() => plans.data.value?.find((plan) => plan.startsOn < startsOn.value))
  /** The newest of which some day is over: what was done of it can be said. */
  const running = computed(() => plans.data.value?.find((plan) => plan.startsOn < today))

  const edit = computed<WeekEdit>(
    () => draft.value ?? unchangedWeek(startsOn.value, given.value, before.value, facts.value?.age),
  )
  /** What was there before each change; null of nothing changed. */
  const undone = ref<(WeekEdit | null)[]>([])

  const days = computed(() =>
    daysOfWeek(startsOn.value).map((day) => ({
      day,
      isPractice: edit.value.weekdays.includes(weekdayOf(day)),
    })),
  )
  const made = computed(() => facts.value && plannedWeek(edit.value, given.value, facts.value, today))
  const isChanged = computed(() => !given.value || draft.value !== null)

  function change(by: Partial<WeekEdit>) {
    undone.value = [...undone.value.slice(-MOST_UNDONE), draft.value]
    kept.value = { ...edit.value, ...by }
  }

  const without = (card: PlannedCard) =>
    edit.value.fixed.filter((one) => one.exerciseId !== card.exerciseId || one.on !== card.on)

  /** What can be added: everything for this instrument that is done at home. */
  const addable = computed(() => {
    const family = student.value?.family ?? 'violin'
    const there = new Set(made.value?.cards.map(({ exerciseId }) => exerciseId))
    return shown.exercises.offered.filter(
      (id) => isPracticedOn(shown.exercises.of(id), family) && !there.has(id),
    )
  })

  async function give(): Promise<Plan | undefined> {
    const of = student.value
    const week = made.value
    if (!of || !week) return undefined
    const body = draftOf(of, edit.value, week, given.value)
    try {
      const plan = await outbox.send(
        'plans.give',
        { params: { studentId: of.id }, body },
        { what: `the plan of ${of.name}` },
      )
      kept.value = null
      undone.value = []
      await plans.reload()
      notices.say(`The plan is in the file of ${of.name}.`, {
        label: UNDO,
        run: async () => {
          await call('plans.remove', { params: { planId: plan.id } })
          await plans.reload()
        },
      })
      return plan
    } catch (error) {
      // Somebody else’s is shown, and what was changed here is still there to be given.
      if (error instanceof ApiProblem && error.code === 'changed_meanwhile') await plans.reload()
      throw error
    }
  }

  return {
    startsOn,
    given,
    edit,
    days,
    made,
    isChanged,
    addable,
    give,
    canUndo: computed(() => undone.value.length > 0),

    running,
    /** What checks and the setup say now, from today on. */
    anew() {
      undone.value = [...undone.value.slice(-MOST_UNDONE), draft.value]
      kept.value = {
        ...unchangedWeek(today, undefined, given.value ?? before.value, undefined),
        pieces: edit.value.pieces,
      }
    },
    undo() {
      const last = undone.value.at(-1)
      if (last === undefined) return
      undone.value = undone.value.slice(0, -1)
      kept.value = last
    },
    setMinutes(minutesADay: number) {
      change({ minutesADay: Math.max(1, Math.min(LONGEST, Math.round(minutesADay))) })
    },
    /** A day of rest is empty, but for what is set there afterwards. */
    toggleDay(weekday: number) {
      const { weekdays, fixed } = edit.value
      const others = weekdays.filter((day) => day !== weekday)
      if (others.length === 0) return
      if (others.length === weekdays.length) return change({ weekdays: [...weekdays, weekday] })
      change({ weekdays: others, fixed: fixed.filter(({ on }) => on < today || weekdayOf(on) !== weekday) })
    },
    setPieces(pieces: readonly string[]) {
      change({
        pieces: pieces.map((title) => title.trim()).filter((title) => title !== ''),
        fixed: edit.value.fixed.filter(({ exerciseId, on }) => on < today || exerciseId !== 'review_piece'),
      })
    },
    /** Set where it is, or loose again: then the planner may move it, or in a week that is given it stands as the others do. */
    lock(card: PlannedCard) {
      const loose = edit.value.isGiven ? [...without(card), { ...card, isFixed: false }] : without(card)
      change({ fixed: card.isFixed ? loose : [...without(card), { ...card, isFixed: true }] })
    },
    /** To another day, where it then stands fixed; false where it is there already. */
    move(card: PlannedCard, on: string): boolean {
      const isThere = made.value?.cards.some((one) => one.exerciseId === card.exerciseId && one.on === on)
      if (card.on === on || isThere) return false
      change({
        fixed: [...without(card), { ...card, on, isFixed: true }],
        dropped: [...edit.value.dropped, { exerciseId: card.exerciseId, on: card.on }],
      })
      return true
    },
    /** Off this day, or off the week. */
    drop(card: PlannedCard, everywhere: boolean) {
      const { exerciseId } = card
      const one = everywhere ? { exerciseId } : { exerciseId, on: card.on }
      const fixed = everywhere ? edit.value.fixed.filter((f) => f.exerciseId !== exerciseId) : without(card)
      change({
        fixed,
        dropped: [...edit.value.dropped, one],
        asked: everywhere ? edit.value.asked.filter((id) => id !== exerciseId) : edit.value.asked,
      })
    },
    add(exerciseId: ExerciseId) {
      change({
        asked: [...edit.value.asked, exerciseId],
        dropped: edit.value.dropped.filter((one) => one.exerciseId !== exerciseId),
      })
    },
    dose(card: PlannedCard, by: number) {
      const { exerciseId, minutes } = card
      const now = Math.max(1, Math.min(LONGEST, minutes + by))
      change({
        minutes: { ...edit.value.minutes, [exerciseId]: now },
        fixed: edit.value.fixed.map((one) =>
          one.exerciseId === exerciseId && one.on >= today ? { ...one, minutes: now } : one,
        ),
      })
    },
  }
}
