import { planWeek, type PlannedCard, type ExerciseId, type WeekPlan } from '#core'
import type { Plan, PlanDraft, Student } from '#contracts'
import type { FileFacts } from './usePlanFacts'
import { daysOfWeek, weekdayOf } from './week'

/** A week as the teacher has it: as the planner makes it, or as it was given, and what was changed by hand. */
export interface WeekEdit {
  readonly startsOn: string
  /** Of a week that is given already: its cards stand, and nothing is planned anew but what is added. */
  readonly isGiven: boolean
  readonly minutesADay: number
  readonly weekdays: readonly number[]
  readonly pieces: readonly string[]
  readonly asked: readonly ExerciseId[]
  readonly fixed: readonly PlannedCard[]
  readonly dropped: readonly { readonly exerciseId: ExerciseId; readonly on?: string }[]
  readonly minutes: Readonly<Partial<Record<ExerciseId, number>>>
}

/** Short sessions; the teacher says otherwise. Common practice, no source. */
const USUAL_MINUTES = { child: 15, grown: 20 }
const GROWN_FROM = 12
/** Six days and one of rest: common practice, no source. */
const USUAL_WEEKDAYS = [1, 2, 3, 4, 5, 6]

/** A week that nobody has changed: the plan that is given, or one that begins from the last one’s minutes, days and pieces. */
export function unchangedWeek(
  startsOn: string,
  given: Plan | undefined,
  before: Plan | undefined,
  age: number | undefined,
): WeekEdit {
  const last = given ?? before
  const usual = (age ?? GROWN_FROM) < GROWN_FROM ? USUAL_MINUTES.child : USUAL_MINUTES.grown
  return {
    startsOn,
    isGiven: given !== undefined,
    minutesADay: last?.minutesADay ?? usual,
    weekdays: last?.weekdays ?? USUAL_WEEKDAYS,
    pieces: last?.pieces ?? [],
    asked: [],
    fixed: given?.cards ?? [],
    dropped: [],
    minutes: {},
  }
}

/** What the planner makes of it on a day; of what is given nothing moves by itself, whatever checks have found since. */
export function plannedWeek(
  { startsOn, isGiven, weekdays, pieces, asked, ...terms }: WeekEdit,
  given: Plan | undefined,
  facts: FileFacts,
  today: string,
): WeekPlan {
  // Nobody practises yesterday.
  const days = daysOfWeek(startsOn).filter((day) => day >= today && weekdays.includes(weekdayOf(day)))
  const areKnown = isGiven && pieces.join() === given?.pieces.join()
  return planWeek(
    startsOn,
    { ...facts, pieces: areKnown ? [] : pieces, asked },
    { ...terms, days, onlyAsked: isGiven },
  )
}

/** A week as it is sent, in the place of the one that is given. */
export function draftOf(
  student: Student,
  { startsOn, minutesADay, weekdays, pieces }: WeekEdit,
  { cards }: WeekPlan,
  given: Plan | undefined,
): PlanDraft {
  return {
    startsOn,
    family: student.family,
    instrumentId: student.instrument?.id ?? null,
    minutesADay,
    weekdays: [...weekdays],
    cards: [...cards],
    pieces: [...pieces],
    after: given?.id ?? null,
  }
}
