import { dayNumber } from '../calendar'
import { minutesOf, mostMinutes, PRACTICE, PRACTICE_IDS, PRACTICE_PARTS, type ExerciseId } from './exercises'
import { exerciseBook, type ExerciseBook } from './own'
import { wishesOf, type LeftOut, type PlanFacts, type PlanReason, type Wish } from './wishes'

/** One exercise on one day. */
export interface PlannedCard {
  readonly exerciseId: ExerciseId
  /** ISO date. */
  readonly on: string
  readonly minutes: number
  readonly reason: PlanReason
  /** Set by the teacher: the planner works round it. */
  readonly isFixed: boolean
}

/** What a teacher says of a week before it is planned. */
export interface PlanTerms {
  /** Practice days, ISO dates in order; the others are days of rest. */
  readonly days: readonly string[]
  /** Whole minutes a day. */
  readonly minutesADay: number
  /** Cards that stand where they are, whoever set them there. */
  readonly fixed?: readonly PlannedCard[]
  /** Not on this day; on no day without one. */
  readonly dropped?: readonly { readonly exerciseId: ExerciseId; readonly on?: string | undefined }[]
  /** Nothing is heard of the file: only what the teacher adds, and an old piece, find a place beside what stands. */
  readonly onlyAsked?: boolean
  /** Another dose, whole minutes. */
  readonly minutes?: Readonly<Partial<Record<ExerciseId, number>>>
}

export interface WeekPlan {
  /** By day, and within a day in the order of practice. */
  readonly cards: readonly PlannedCard[]
  readonly leftOut: readonly LeftOut[]
  /** What the planner made as large as it could; see {@link planWeek}. */
  readonly worth: number
}

/** One new thing at a time: the second begins after so many practice days with the first. Common practice, no source. */
const DAYS_WITH_ONE_NEW = 3
/** A review loses this part of its worth for every day that it comes later than it could. Chosen: the day may give way, the week not. */
const LATE = 0.1
/** A few exercises: beside these an old piece, what is looked at again, and what the teacher adds. Common practice, no source. */
const MOST_EXERCISES = 5
/** A knapsack’s choices are the bits of one number. */
const MOST_CHOICES = 30
/** What holds is looked at, and not practised: more of it in a week would be a week of reviews. Chosen. */
const MOST_REVIEWS = 3

/** A wish as one week can have it. */
interface Choice {
  readonly wish: Wish
  readonly minutes: number
  /** Numbers of the days on which it may stand. */
  readonly may: readonly boolean[]
  /** Number of the first day it could have stood on; of a review alone. */
  readonly first: number
}

/**
 * Exercises on the practice days of a week. Of all plans that keep to the minutes of every day, to one session of an exercise a day, to
 * one new thing at a time, and to what is fixed or dropped, the one with the greatest sum of worths, each day counting alike; a review
 * counts once, and less the later it comes. Exact: days share nothing but reviews, so each is a knapsack of its own (R. Bellman,
 * Dynamic Programming, 1957) and every way to set the few reviews is tried. Held against the exhaustive optimum in bench/practice.ts.
 *
 * @example planWeek('2026-12-05', facts, { days: ['2026-12-05', '2026-12-06'], minutesADay: 15 })
 */
export function planWeek(today: string, facts: PlanFacts, terms: PlanTerms): WeekPlan {
  const { wishes, leftOut } = terms.onlyAsked ? askedOf(today, facts) : wishesOf(today, facts)
  // Whoever hurts rests, whatever was set before.
  const fixed = facts.pains > 0 ? [] : (terms.fixed ?? [])
  const most = Math.floor(Math.min(terms.minutesADay, mostMinutes(facts.age)))
  const left: LeftOut[] = [...leftOut]
  const book = exerciseBook(facts.own)
  const choices = choicesOf(wishes, facts, terms, left)
  const rooms = terms.days.map((day) => Math.max(0, most - minutesOn(fixed, day)))
  const { cards, worth } = placed(choices, terms.days, rooms, book)
  const all = fixed.length > 0 ? [...fixed, ...cards].sort(orderOf(book)) : cards
  const isIn = new Set(all.map(({ exerciseId }) => exerciseId))
  for (const { wish } of choices)
    if (!isIn.has(wish.exerciseId))
      left.push({ exerciseId: wish.exerciseId, why: whyNot(terms, facts, most) })
  return { cards: all, leftOut: left.filter(({ exerciseId }) => !isIn.has(exerciseId)), worth }
}

/** What the teacher says, without what the file says; gates, age and school bar all the same. */
function askedOf(today: string, facts: PlanFacts): ReturnType<typeof wishesOf> {
  const { wishes, leftOut } = wishesOf(today, facts)
  return {
    wishes: wishes.filter(({ reason }) => reason.code === 'asked' || reason.code === 'piece'),
    leftOut: leftOut.filter(({ exerciseId }) => facts.asked.includes(exerciseId)),
  }
}

function whyNot({ minutesADay }: PlanTerms, { age }: PlanFacts, most: number): LeftOut['why'] {
  return age !== undefined && most < minutesADay ? { code: 'minutes_of_age', most } : { code: 'no_minutes' }
}

function minutesOn(cards: readonly PlannedCard[], day: string): number {
  return cards.reduce((sum, { on, minutes }) => (on === day ? sum + minutes : sum), 0)
}

/** What may stand where: what is new begins one after another, the weightiest first. */
function choicesOf(
  wishes: readonly Wish[],
  { log, strings, own }: PlanFacts,
  { days, fixed = [], dropped = [], minutes = {} }: PlanTerms,
  left: LeftOut[],
): Choice[] {
  const book = exerciseBook(own)
  const known = new Set<string>(log.map(({ exerciseId }) => exerciseId))
  let begun = 0
  let few = 0
  let daily = 0
  let reviews = 0
  const choices: Choice[] = []
  for (const wish of wishes) {
    const { exerciseId, reason, onceFrom } = wish
    if (dropped.some((one) => one.exerciseId === exerciseId && one.on === undefined)) continue
    if (onceFrom !== undefined && (onceFrom > (days.at(-1) ?? '') || ++reviews > MOST_REVIEWS)) continue
    const isOneOfFew = onceFrom === undefined && reason.code !== 'asked' && reason.code !== 'piece'
    if ((isOneOfFew && few === MOST_EXERCISES) || daily === MOST_CHOICES) {
      left.push({ exerciseId, why: { code: 'enough' } })
      continue
    }
    const isNew =
      onceFrom === undefined && reason.code !== 'asked' && reason.code !== 'piece' && !known.has(exerciseId)
    const from = isNew ? DAYS_WITH_ONE_NEW * begun++ : 0
    if (from > 0 && from >= days.length) {
      left.push({ exerciseId, why: { code: 'one_new' } })
      continue
    }
    const may = days.map(
      (day, i) =>
        i >= from &&
        (onceFrom === undefined || day >= onceFrom) &&
        !dropped.some((one) => one.exerciseId === exerciseId && one.on === day) &&
        !fixed.some((card) => card.exerciseId === exerciseId && card.on === day),
    )
    const isSetBefore = onceFrom !== undefined && fixed.some((card) => card.exerciseId === exerciseId)
    if (isSetBefore || !may.includes(true)) continue
    if (isOneOfFew) few++
    if (onceFrom === undefined) daily++
    choices.push({
      wish,
      minutes: minutes[exerciseId] ?? minutesOf(book.of(exerciseId), strings),
      may,
      first: may.indexOf(true),
    })
  }
  return choices
}

/** Best worth of some exercises for every number of minutes, and which they are. */
interface Knapsack {
  readonly worths: Float64Array
  /** By minutes: bit i where the i-th is taken. */
  readonly taken: Int32Array
}

function placed(
  choices: readonly Choice[],
  days: readonly string[],
  rooms: readonly number[],
  book: ExerciseBook,
): { cards: PlannedCard[]; worth: number } {
  // In the order of a day’s practice: what is taken of them is in order then.
  const daily = choices
    .filter(({ wish }) => wish.onceFrom === undefined)
    .sort((a, b) => rankOf(a.wish.exerciseId, book) - rankOf(b.wish.exerciseId, book))
  const once = choices.filter(({ wish }) => wish.onceFrom !== undefined)
  const room = Math.max(0, ...rooms)
  // Days with the same choices share a knapsack.
  const made = new Map<number, Knapsack>()
  const sacks = days.map((_, day) => {
    let bits = 0
    for (let i = 0; i < daily.length; i++) if (daily[i]!.may[day]) bits |= 1 << i
    let sack = made.get(bits)
    if (!sack) made.set(bits, (sack = packed(daily, bits, room)))
    return sack
  })
  const numbers = once.length > 0 ? days.map(dayNumber) : []
  let best = -1
  let bestOn: number[] = []
  const free = [...rooms]
  const on: number[] = []
  tried(0, 0)
  return { cards: cardsOf(), worth: Math.max(0, best) }

  /** Every way to set the reviews from the `index`-th on. */
  function tried(index: number, worth: number): void {
    const review = once[index]
    if (!review) {
      let sum = worth
      for (let day = 0; day < days.length; day++) sum += sacks[day]!.worths[free[day]!]!
      if (sum > best + TIE) [best, bestOn] = [sum, [...on]]
      return
    }
    for (let day = 0; day < days.length; day++) {
      if (!review.may[day] || review.minutes > free[day]!) continue
      free[day]! -= review.minutes
      on[index] = day
      const late = LATE * (numbers[day]! - numbers[review.first]!)
      tried(index + 1, worth + review.wish.worth * Math.max(0, 1 - late))
      free[day]! += review.minutes
    }
    on[index] = -1
    tried(index + 1, worth)
  }

  function cardsOf(): PlannedCard[] {
    const cards: PlannedCard[] = []
    for (let day = 0; day < days.length; day++) {
      const on = days[day]!
      let rest = rooms[day]!
      const looks: PlannedCard[] = []
      for (let i = 0; i < once.length; i++)
        if (bestOn[i] === day) {
          rest -= once[i]!.minutes
          looks.push(cardOf(once[i]!, on))
        }
      const taken = sacks[day]!.taken[rest]!
      const own: PlannedCard[] = []
      for (let i = 0; i < daily.length; i++) if (taken & (1 << i)) own.push(cardOf(daily[i]!, on))
      cards.push(...(looks.length > 0 ? [...looks, ...own].sort(orderOf(book)) : own))
    }
    return cards
  }
}

/** Sums that differ by less are rounded, and the earlier way stays. */
const TIE = 1e-9

function packed(daily: readonly Choice[], bits: number, room: number): Knapsack {
  const worths = new Float64Array(room + 1)
  const taken = new Int32Array(room + 1)
  for (let i = 0; i < daily.length; i++) {
    if (!(bits & (1 << i))) continue
    const { minutes, wish } = daily[i]!
    for (let m = room; m >= minutes; m--) {
      const worth = worths[m - minutes]! + wish.worth
      if (worth > worths[m]! + TIE) {
        worths[m] = worth
        taken[m] = taken[m - minutes]! | (1 << i)
      }
    }
  }
  return { worths, taken }
}

function cardOf({ wish, minutes }: Choice, on: string): PlannedCard {
  return { exerciseId: wish.exerciseId, on, minutes, reason: wish.reason, isFixed: false }
}

/** Place of an exercise in a day: by part, then by name, so that a plan is the same every time. */
const RANK = new Map<ExerciseId, number>(
  PRACTICE_PARTS.flatMap((part) => PRACTICE_IDS.filter((id) => PRACTICE[id].part === part).sort()).map(
    (id, rank) => [id, rank] as const,
  ),
)
/** What a studio added stands behind the others of its part. */
const BEHIND = new Map(
  PRACTICE_PARTS.map((part) => {
    const ranks = PRACTICE_IDS.filter((id) => PRACTICE[id].part === part).map((id) => RANK.get(id)!)
    return [part, Math.max(...ranks) + 0.5] as const
  }),
)

function rankOf(id: ExerciseId, book: ExerciseBook): number {
  return RANK.get(id) ?? BEHIND.get(book.of(id).part)!
}

/** By day, within a day as practice goes: tension first, an old piece last. */
function orderOf(book: ExerciseBook): (a: PlannedCard, b: PlannedCard) => number {
  return (a, b) => {
    if (a.on !== b.on) return a.on < b.on ? -1 : 1
    return rankOf(a.exerciseId, book) - rankOf(b.exerciseId, book)
  }
}
