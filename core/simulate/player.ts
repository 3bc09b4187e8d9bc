import { randomLcg, randomNormal } from 'd3-random'
import { centsOnString, THUMB, type Finger, type Stringing } from '../instrument'
import { landingAtCents, METER_SIGMA_CENTS, targetsOf, type Exercise, type Landing } from '../take'

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

/**
 * The same numbers for the same seed: d3-random's linear congruential generator. Whole numbers in a row would begin almost
 * alike there: they are spread over its states first, by the finalizer of MurmurHash3 (A. Appleby, public domain).
 */
export function seededSource(seed: number): RandomSource {
  return randomLcg(Number.isInteger(seed) ? spread(seed) : seed)
}

/** A whole number as one of 2³² states, neighbours far apart; in [0, 1). */
function spread(seed: number): number {
  let h = seed >>> 0
  h = Math.imul(h ^ (h >>> 16), 0x85ebca6b)
  h = Math.imul(h ^ (h >>> 13), 0xc2b2ae35)
  return ((h ^ (h >>> 16)) >>> 0) / 2 ** 32
}

/**
 * Plays every stopped note of an exercise `times` over with known faults, the frame being that from its first to its last
 * note. Stands in for a student and a meter: cents off the expected note are rounded to whole ones as a meter shows them.
 * Same source, same landings.
 */
export function playExercise(
  source: RandomSource,
  stringing: Stringing,
  exercise: Exercise,
  faults: PlayerFaults,
  times = 1,
): Landing[] {
  const scatter = randomNormal.source(source)(0, faults.scatterCents)
  const targets = targetsOf(stringing, exercise).filter((target) => target.finger !== 0)
  const first = targets[0]?.placeMm ?? 0
  const width = (targets.at(-1)?.placeMm ?? 0) - first
  return Array.from({ length: times }, () =>
    targets.map((target) => {
      const { finger, stringIndex, placeMm } = target
      const along = width > 0 ? (placeMm - first) / width : 0
      const own = finger === 0 || finger === THUMB ? 0 : (faults.fingerOffsetMm[finger] ?? 0)
      const landedMm = placeMm + faults.handOffsetMm + along * faults.frameErrorMm + own
      const error =
        centsOnString(stringing, stringIndex, landedMm) - target.cents + faults.stringCents + scatter()
      return landingAtCents(stringing, target, Math.round(error), {
        sigmaCents: METER_SIGMA_CENTS,
        atMs: null,
        source: 'simulated',
      })
    }),
  ).flat()
}
