import { mean, sum } from 'd3-array'
import type { Stringing } from '../instrument'
import { noteName } from '../pitch'
import { evidenceOf } from './evidence'
import type { EarlierTake, JudgedTake } from './types'
import { faultKey, weigh, type Weighing } from './weigh'

/** What is known of a hand before it plays. */
export interface Belief {
  /** How many takes stand behind it, and how old the newest is, days. */
  readonly count: number
  readonly daysAgo: number
  /** How much of what is believed beforehand they are, 0 … 1; the rest is as of anybody. */
  readonly share: number
  /** By the key of each explanation. */
  readonly probabilities: ReadonlyMap<string, number>
}

/** After so many days an earlier take counts half: what is practised changes in weeks (handbook § 8). Our own number. */
const HALF_LIFE_DAYS = 21
/** Older than this nothing is left of it. */
const OLDEST_DAYS = 120
/** However much was heard before, a hand may have mended since. */
const MOST_SHARE = 0.6
/** What a single fresh take is worth of it. */
const ONE_TAKE = 0.35
/** Lengths and tapes nearer than a ruler reads are the same, mm. */
const SAME_MM = 0.5
const MOST_TAKES = 8
/** Fewer say nothing. */
const LEAST_NOTES = 3

/** The earlier takes that speak of the same hand on the same places; another instrument, length, tuning or tape cuts them. */
export function sameHandTakes(take: JudgedTake): EarlierTake[] {
  return [...(take.earlier ?? [])]
    .filter(
      (earlier) =>
        earlier.daysAgo >= 0 &&
        earlier.daysAgo <= OLDEST_DAYS &&
        isSameStringing(earlier.stringing, take.stringing) &&
        isAlike(earlier.tapesMm ?? [], take.tapesMm ?? []),
    )
    .sort((a, b) => a.daysAgo - b.daysAgo)
    .slice(0, MOST_TAKES)
}

/**
 * What earlier takes make likely of this one: each weighed by itself, and mixed by its age with what is likely of anybody.
 * Undefined where there are none. Source of mixing instead of multiplying: a prior that is wrong costs no more than its share,
 * J. O. Berger, Statistical Decision Theory and Bayesian Analysis (1985), § 4.7 (contaminated priors).
 */
export function beliefOf(take: JudgedTake): Belief | undefined {
  const weighed = sameHandTakes(take).flatMap((earlier) => {
    const explanations = explanationsOf(earlier, take.toleranceCents)
    return explanations ? [{ earlier, explanations }] : []
  })
  const newest = weighed[0]
  if (!newest) return undefined
  const ages = weighed.map(({ earlier }) => 2 ** (-earlier.daysAgo / HALF_LIFE_DAYS))
  const total = sum(ages)
  const probabilities = new Map<string, number>()
  weighed.forEach(({ explanations }, i) => {
    for (const { candidates, probability } of explanations) {
      const key = faultKey(candidates)
      probabilities.set(key, (probabilities.get(key) ?? 0) + (probability * ages[i]!) / total)
    }
  })
  const share = MOST_SHARE * (1 - ages.reduce((left, age) => left * (1 - ONE_TAKE * age), 1))
  return { count: weighed.length, daysAgo: newest.earlier.daysAgo, share, probabilities }
}

/** While a take is played the same earlier ones are asked with every note: each is weighed once. */
const known = new WeakMap<
  EarlierTake,
  { readonly toleranceCents: number; readonly explanations: Explanations }
>()
type Explanations = Weighing['explanations'] | undefined

function explanationsOf(earlier: EarlierTake, toleranceCents: number): Explanations {
  const before = known.get(earlier)
  if (before?.toleranceCents === toleranceCents) return before.explanations
  const evidence = evidenceOf({ ...earlier, toleranceCents })
  const explanations = evidence.notes.length < LEAST_NOTES ? undefined : weigh(evidence).explanations
  known.set(earlier, { toleranceCents, explanations })
  return explanations
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
