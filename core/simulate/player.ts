import { randomLcg, randomNormal } from 'd3-random'
import type { Finger } from '../instrument'
import { centsAtPlace } from '../stop'
import type { Target } from '../tape'
import type { Reading } from '../verdict'

/** What is wrong with a simulated hand. All zero is a hand that is never off. */
export interface PlayerFaults {
  /** The whole hand lies this far up the board, mm. */
  readonly handOffsetMm: number
  /** The distance from first to last finger is this much too wide, mm; the first finger stands. */
  readonly frameErrorMm: number
  /** One finger's own error, mm. */
  readonly fingerOffsetMm: Partial<Record<Finger, number>>
  /** The open string's tuning error. */
  readonly stringCents: number
  /** Standard deviation of each landing, in cents. */
  readonly scatterCents: number
}

export const NO_FAULTS: PlayerFaults = {
  handOffsetMm: 0,
  frameErrorMm: 0,
  fingerOffsetMm: {},
  stringCents: 0,
  scatterCents: 0,
}

/** A source of numbers in [0, 1); {@link seededSource} makes one that repeats. */
export type RandomSource = () => number

/** The same numbers for the same seed: d3-random's linear congruential generator. */
export function seededSource(seed: number): RandomSource {
  return randomLcg(seed)
}

/**
 * Plays every finger of a hand shape `times` over with known faults. Stands in for a student and a meter: cents are
 * relative to the target, rounded to whole cents as a meter shows them. Same source, same readings.
 */
export function playHand(
  source: RandomSource,
  lengthMm: number,
  targets: readonly Target[],
  faults: PlayerFaults,
  times = 1,
): Reading[] {
  const scatter = randomNormal.source(source)(0, faults.scatterCents)
  const first = targets[0]?.placeMm ?? 0
  const width = (targets.at(-1)?.placeMm ?? 0) - first
  return Array.from({ length: times }, () =>
    targets.map(({ finger, cents, placeMm }) => {
      const along = width > 0 ? (placeMm - first) / width : 0
      const landedMm =
        placeMm + faults.handOffsetMm + along * faults.frameErrorMm + (faults.fingerOffsetMm[finger] ?? 0)
      const error = centsAtPlace(lengthMm, landedMm) - cents + faults.stringCents + scatter()
      return { finger, cents: Math.round(error) }
    }),
  ).flat()
}
