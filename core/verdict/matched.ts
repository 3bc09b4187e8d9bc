import { deviation, mean } from 'd3-array'
import { studentsT } from '../stats'
import type { Landing } from '../take'

/** Two notes that should be one by ear. */
export interface Match {
  /** The fourth finger against its partner; sharp is positive. */
  readonly cents: number
  readonly plusMinusCents: number
  readonly isOff: boolean | null
}

/** Beyond this two notes are two; surely within twice as much they are one. Ears notice from about 5; from memory. */
const ONE_CENTS = 5
const UPPER_FINGER = 4
const NINETEEN_IN_TWENTY = 1.96

/**
 * How well the fourth finger meets the open string, or the octave of 1: the difference of the two means, so that an instrument
 * tuned too low blames nobody. Undefined while one of the two is missing.
 */
export function matchOf(landings: readonly Landing[]): Match | undefined {
  const upper = landings.filter(({ finger }) => finger === UPPER_FINGER)
  const partner = landings.filter(({ finger }) => finger !== UPPER_FINGER)
  if (upper.length === 0 || partner.length === 0) return undefined
  const cents = mean(upper, (l) => l.cents)! - mean(partner, (l) => l.cents)!
  const plusMinusCents = Math.sqrt(reach(upper) ** 2 + reach(partner) ** 2)
  const off = Math.abs(cents)
  const isOff = off - plusMinusCents > ONE_CENTS ? true : off + plusMinusCents <= 2 * ONE_CENTS ? false : null
  return { cents, plusMinusCents, isOff }
}

/** How far the mean may be from the truth, nineteen times in twenty: by what a reading is worth, or by their spread where it is wider. */
function reach(notes: readonly Landing[]): number {
  const own = mean(notes, ({ sigmaCents }) => sigmaCents)!
  const spread = deviation(notes, (l) => l.cents) ?? 0
  const each = spread > own ? studentsT(0.975, notes.length - 1) * spread : NINETEEN_IN_TWENTY * own
  return each / Math.sqrt(notes.length)
}
