import { mean, sum } from 'd3-array'
import type { Stringing } from '../instrument'
import { noteName } from '../pitch'
import { takeOfRecord, type TakeRecord } from '../take'
import type { Belief, EarlierTake, JudgedTake, Likely } from './types'

/** A take of earlier days, as it is kept. */
export interface PastRecord extends TakeRecord {
  /** ISO instant. */
  readonly takenAt: string
  readonly tapesCovered: boolean
  /** A teacher has overruled its verdict. */
  readonly isOverruled: boolean
  /** Null where it says nothing of the hand. */
  readonly likely: Likely | null
}

/** After so many days an earlier take counts half: what is practised changes in weeks (docs/trade.md § 8). Our own number. */
const HALF_LIFE_DAYS = 21
/** Older than this nothing is left of it. */
const OLDEST_DAYS = 120
/** However much was heard before, a hand may have mended since. */
const MOST_SHARE = 0.6
/** What a single fresh take is worth of it. */
const ONE_TAKE = 0.35
/** Lengths and tapes nearer than a ruler reads are the same, mm. */
const SAME_MM = 0.5
/** So many have a say. */
export const MOST_EARLIER = 8
const DAY_MS = 86_400_000

/** Kept takes as evidence of earlier days; what a teacher has overruled, or what can no longer be read, is none. */
export function earlierTakes(records: readonly PastRecord[], nowMs: number): EarlierTake[] {
  return records.flatMap((record) => {
    const take = record.isOverruled ? undefined : takeOfRecord(record)
    const { tapesCovered, likely } = record
    // A clock may be somewhat behind another.
    const daysAgo = Math.max(0, (nowMs - Date.parse(record.takenAt)) / DAY_MS)
    return take ? [{ ...take, daysAgo, tapesCovered, likely }] : []
  })
}

/** The earlier takes that speak of the same hand on the same places; another instrument, length, tuning or tape cuts them. */
export function sameHandTakes(take: JudgedTake): EarlierTake[] {
  return [...(take.earlier ?? [])]
    .filter(
      (earlier) =>
        earlier.daysAgo <= OLDEST_DAYS &&
        isSameStringing(earlier.stringing, take.stringing) &&
        isAlike(earlier.tapesMm ?? [], take.tapesMm ?? []),
    )
    .sort((a, b) => a.daysAgo - b.daysAgo)
    .slice(0, MOST_EARLIER)
}

/**
 * What earlier takes make likely of this one: what each made likely by itself, mixed by its age with what is usual of anybody.
 * Undefined where none says anything. Source of mixing instead of multiplying: a prior that is wrong costs no more than its share,
 * J. O. Berger, Statistical Decision Theory and Bayesian Analysis (1985), § 4.7 (contaminated priors).
 */
export function beliefOf(take: JudgedTake): Belief | undefined {
  const telling = sameHandTakes(take).flatMap(({ daysAgo, likely }) => (likely ? [{ daysAgo, likely }] : []))
  const newest = telling[0]
  if (!newest) return undefined
  const ages = telling.map(({ daysAgo }) => 2 ** (-daysAgo / HALF_LIFE_DAYS))
  const total = sum(ages)
  const mixed: Record<string, number> = {}
  telling.forEach(({ likely }, i) => {
    for (const [key, probability] of Object.entries(likely))
      mixed[key] = (mixed[key] ?? 0) + (probability * ages[i]!) / total
  })
  const share = MOST_SHARE * (1 - ages.reduce((left, age) => left * (1 - ONE_TAKE * age), 1))
  return { count: telling.length, daysAgo: newest.daysAgo, share, likely: mixed }
}

function isSameStringing(a: Stringing, b: Stringing): boolean {
  return (
    a.family.id === b.family.id &&
    a.tuning.length === b.tuning.length &&
    a.tuning.every((open, i) => noteName(open) === noteName(b.tuning[i]!)) &&
    Math.abs(mean(a.lengthsMm)! - mean(b.lengthsMm)!) <= SAME_MM
  )
}

function isAlike(a: readonly number[], b: readonly number[]): boolean {
  const [one, other] = [a, b].map((tapes) => [...tapes].sort((p, q) => p - q))
  return one!.length === other!.length && one!.every((mm, i) => Math.abs(mm - other![i]!) <= SAME_MM)
}
