import { dayNumber, dayOf, daysBetween } from '../calendar'
import type { FamilyId, Finger } from '../instrument'
import type { GateId, Schools, SetupAnswer, SetupItemId } from '../setup'
import type { Finding } from '../verdict'
import { isPracticedOn, PRACTICE, type ExerciseId, type PracticeExercise, type PracticeId } from './exercises'
import { exerciseBook, type ExerciseBook, type OwnExercise } from './own'
import { gatesAsked } from './notes'
import { daysUntilReview } from './spacing'

/** A finding of a student’s newest checks, as far as a plan asks. */
export interface FoundFault {
  readonly finding: Finding
  /** ISO date of the check. */
  readonly takenOn: string
  /** How sure it is, 0 to 1: 1 of what a verdict names, less of what it only leans to. */
  readonly certainty: number
  /** What the teacher said to it, if anything. */
  readonly says?: 'accepted' | 'overruled' | undefined
}

/** Something that was found once and has held since, with the days on which it held. */
export interface Held {
  readonly finding: Finding
  /** ISO dates, oldest first. */
  readonly heldOn: readonly string[]
}

/** What was done of an exercise on a day. */
export interface Practised {
  readonly exerciseId: string
  /** ISO date. */
  readonly on: string
}

/** Everything a plan is made from. The same facts give the same plan. */
export interface PlanFacts {
  readonly familyId: FamilyId
  readonly strings: number
  /** Years; unknown of somebody who never said. */
  readonly age?: number | undefined
  readonly schools: Schools
  /** Of somebody further on nobody waits for a fourth finger, whatever was looked at here. */
  readonly isBeginner: boolean
  /** How many pains are told and not cleared: nothing is planned before they are. */
  readonly pains: number
  readonly closedGates: readonly GateId[]
  readonly found: readonly FoundFault[]
  readonly held: readonly Held[]
  readonly setup: readonly {
    readonly itemId: string
    readonly answer: SetupAnswer
    readonly seenOn: string
  }[]
  /** Ids of the patterns that are being learned. */
  readonly learning: readonly string[]
  /** Old pieces, by title. */
  readonly pieces: readonly string[]
  /** What was done in the weeks before. */
  readonly log: readonly Practised[]
  /** What the teacher adds by hand. */
  readonly asked: readonly ExerciseId[]
  /** What the studio added of its own. */
  readonly own?: readonly OwnExercise[]
}

/** Why something is planned. */
export type PlanReason =
  | { readonly code: 'finding'; readonly finding: Finding; readonly on: string }
  | {
      readonly code: 'setup'
      readonly itemId: SetupItemId
      readonly answer: SetupAnswer
      readonly on: string
    }
  | { readonly code: 'gate'; readonly gate: GateId }
  | { readonly code: 'pattern'; readonly patternId: string }
  /** It has held so many times, and is looked at again after so many days. */
  | { readonly code: 'review'; readonly finding: Finding; readonly times: number; readonly days: number }
  | { readonly code: 'piece'; readonly title: string; readonly finger: Finger | null }
  | { readonly code: 'asked' }

/** Why something that was wished for is not in the plan. */
export type LeftOutWhy =
  | { readonly code: 'pain' }
  | { readonly code: 'gate'; readonly gate: GateId; readonly until: PracticeId }
  | { readonly code: 'age'; readonly fromAge: number }
  | { readonly code: 'minutes_of_age'; readonly most: number }
  | { readonly code: 'school' }
  | { readonly code: 'family' }
  /** One new thing at a time. */
  | { readonly code: 'one_new' }
  /** A few exercises are enough. */
  | { readonly code: 'enough' }
  | { readonly code: 'no_minutes' }
  /** It was practised for its weeks, and what it was to mend is there still. */
  | { readonly code: 'not_helped'; readonly since: string; readonly next: ExerciseId }

export interface LeftOut {
  readonly exerciseId: ExerciseId
  readonly why: LeftOutWhy
}

/** One exercise that a week could have. */
export interface Wish {
  readonly exerciseId: ExerciseId
  readonly reason: PlanReason
  /** What a day of it is worth beside the others, above 0. */
  readonly worth: number
  /** Every practice day, or once in the week, from this ISO date on. */
  readonly onceFrom?: string
}

/** What is worth how much. What is wrong in the setup goes before what is heard, what is heard before what is learned. Chosen. */
const WORTH = {
  no: 1,
  nearly: 0.7,
  finding: 0.9,
  asked: 2,
  gate: 0.4,
  pattern: 0.5,
  piece: 0.3,
  review: 0.35,
}
/** An accepted finding is surer than one nobody has looked at. */
const UNLOOKED = 0.8
/** Where the trade does not say after how long something shows. Common practice, no source: a frame takes a little each week. */
const USUAL_WEEKS = 3

/** Exercises that suit what is being learned: a pattern in rounds. Common practice, no source (docs/trade.md § 8). */
export const LEARNING_EXERCISES: readonly PracticeId[] = ['finger_rounds', 'scale_two_bows']

/** What is done until a gate stands open. Common practice, no source (docs/trade.md § 1). */
const UNTIL_OPEN: Partial<Record<GateId, PracticeId>> = {
  fourth_finger: 'fourth_against_open',
  shifting: 'silent_slides',
}

/** What a student’s file asks for on the day `today`, the weightiest first, each exercise once; and what cannot be. */
export function wishesOf(today: string, facts: PlanFacts): { wishes: Wish[]; leftOut: LeftOut[] } {
  const book = exerciseBook(facts.own)
  const leftOut = new Map<ExerciseId, LeftOutWhy>()
  const wishes = new Map<ExerciseId, Wish>()
  function wish(one: Wish) {
    const { exerciseId, reason, worth } = one
    const why = barred(exerciseId, reason)
    if (why?.code === 'gate' && !wishes.has(why.until))
      wish({ exerciseId: why.until, reason, worth: worth * UNLOOKED })
    if (why) return void leftOut.set(exerciseId, why)
    const known = wishes.get(exerciseId)
    if (!known || known.worth < worth) wishes.set(exerciseId, one)
  }
  function barred(id: ExerciseId, reason: PlanReason): LeftOutWhy | undefined {
    if (facts.pains > 0) return { code: 'pain' }
    return barOf(book.of(id), facts, reason) ?? barOfNotes(book.own(id), facts)
  }
  for (const exerciseId of facts.asked) wish({ exerciseId, reason: { code: 'asked' }, worth: WORTH.asked })
  for (const { itemId, answer, seenOn } of facts.setup) {
    if (answer === 'yes') continue
    const reason = { code: 'setup', itemId: itemId as SetupItemId, answer, on: seenOn } as const
    const remedies = book.forItem(itemId as SetupItemId, facts.familyId, facts.schools)
    chain(remedies, reason, WORTH[answer], seenOn)
  }
  for (const { finding, takenOn, certainty, says } of facts.found) {
    if (says === 'overruled') continue
    const worth = WORTH.finding * certainty * (says === 'accepted' ? 1 : UNLOOKED)
    chain(book.forFinding(finding, facts.familyId), { code: 'finding', finding, on: takenOn }, worth, takenOn)
  }
  for (const gate of facts.closedGates) {
    const exerciseId = UNTIL_OPEN[gate]
    const isPassed = gate === 'fourth_finger' && !facts.isBeginner
    if (exerciseId && !isPassed && isPracticedOn(PRACTICE[exerciseId], facts.familyId))
      wish({ exerciseId, reason: { code: 'gate', gate }, worth: WORTH.gate })
  }
  const [patternId] = facts.learning
  if (patternId !== undefined)
    for (const exerciseId of LEARNING_EXERCISES)
      wish({ exerciseId, reason: { code: 'pattern', patternId }, worth: WORTH.pattern })
  for (const held of facts.held) reviewed(held)
  const [title] = facts.pieces
  if (title !== undefined)
    wish({
      exerciseId: 'review_piece',
      reason: { code: 'piece', title, finger: weakest(facts) },
      worth: WORTH.piece,
    })
  return {
    wishes: [...wishes.values()].sort((a, b) => b.worth - a.worth || (a.exerciseId < b.exerciseId ? -1 : 1)),
    leftOut: [...leftOut]
      .filter(([exerciseId]) => !wishes.has(exerciseId))
      .map(([exerciseId, why]) => ({ exerciseId, why })),
  }

  /**
   * The first of these that this student may have and has not practised for its weeks in vain; where all have been, they begin again. What
   * waits for a gate stands in the chain with what is done until then.
   */
  function chain(exercises: readonly ExerciseId[], reason: PlanReason, worth: number, seenOn: string) {
    const home = exercises.filter((id) => !book.of(id).inLesson)
    const may = home.filter((id) => isFor(id, reason))
    const spent = may.map((id) => (takesYears(reason) ? undefined : spentSince(id, book, facts.log, seenOn)))
    const first = Math.max(0, spent.indexOf(undefined))
    const chosen = may[first]
    // What is passed over is named: practised in vain, or not for this student.
    for (const id of home.slice(0, chosen ? home.indexOf(chosen) : 1)) {
      const since = spent[may.indexOf(id)]
      const why =
        chosen && since ? ({ code: 'not_helped', since, next: chosen } as const) : barred(id, reason)
      if (why) leftOut.set(id, why)
    }
    if (chosen) wish({ exerciseId: chosen, reason, worth })
  }
  function isFor(id: ExerciseId, reason: PlanReason): boolean {
    const why = barred(id, reason)
    return why === undefined || why.code === 'gate'
  }

  function reviewed({ finding, heldOn }: Held) {
    const last = heldOn.at(-1)
    const [exerciseId] = book.forFinding(finding, facts.familyId).filter((id) => !book.of(id).inLesson)
    if (last === undefined || exerciseId === undefined) return
    const days = daysUntilReview(heldOn.length)
    const done = facts.log.filter((one) => one.exerciseId === exerciseId && one.on > last).at(-1)?.on
    const from = dayAfter(done ?? last, days)
    const reason = { code: 'review', finding, times: heldOn.length, days } as const
    wish({ exerciseId, reason, worth: WORTH.review, onceFrom: from > today ? from : today })
  }
}

function dayAfter(day: string, by: number): string {
  return dayOf(dayNumber(day) + by)
}

/** A frame is moulded a little every week, and nothing is changed because it is there still (docs/trade.md § 8). */
function takesYears(reason: PlanReason): boolean {
  return reason.code === 'finding' && reason.finding.code === 'frame'
}

/** Since when an exercise was practised, where what it was to mend was seen again after all its weeks. */
function spentSince(
  id: ExerciseId,
  book: ExerciseBook,
  log: readonly Practised[],
  seenOn: string,
): string | undefined {
  const since = log.find(({ exerciseId }) => exerciseId === id)?.on
  if (since === undefined) return undefined
  const weeks = book.of(id).weeks?.[1] ?? USUAL_WEEKS
  return daysBetween(since, seenOn) > 7 * weeks ? since : undefined
}

/** What bars this student from an exercise for the time being. */
function barOf(exercise: PracticeExercise, facts: PlanFacts, reason: PlanReason): LeftOutWhy | undefined {
  const { fromAge, needs, against } = exercise
  if (!isPracticedOn(exercise, facts.familyId)) return { code: 'family' }
  if (needs && facts.closedGates.includes(needs.gate) && reason.code !== 'gate')
    return { code: 'gate', ...needs }
  if (fromAge !== undefined && facts.age !== undefined && facts.age < fromAge) return { code: 'age', fromAge }
  const isAgainst = Object.entries(against ?? {}).some(
    ([question, choice]) => facts.schools[question as keyof Schools] === choice,
  )
  return isAgainst ? { code: 'school' } : undefined
}

/** Notes that a shut gate stands before: a written fourth finger, or a shift. A family without that gate has no such bar. */
function barOfNotes(own: OwnExercise | undefined, facts: PlanFacts): LeftOutWhy | undefined {
  if (!own || facts.closedGates.length === 0) return undefined
  const gate = gatesAsked(own, facts.familyId).find((id) => facts.closedGates.includes(id))
  const until = gate && UNTIL_OPEN[gate]
  return until && { code: 'gate', gate, until }
}

/** The finger that an old piece is played with an eye on: what was found last says it. */
function weakest({ found }: PlanFacts): Finger | null {
  for (const { finding, says } of found) {
    if (says === 'overruled') continue
    if ('finger' in finding && finding.finger !== null) return finding.finger
    if (finding.code === 'frame') return finding.shownBy
  }
  return null
}
