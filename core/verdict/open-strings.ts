import { group, sum } from 'd3-array'
import type { Landing } from '../take'

/** What was read or heard of one open string. */
export interface OpenString {
  readonly stringIndex: number
  /** Off its note, and one standard deviation of that. */
  readonly cents: number
  readonly sigmaCents: number
  readonly count: number
}

/** Ears notice from about here. From memory. */
export const OPEN_STRING_TOLERANCE_CENTS = 5
/** A string is called out of tune where nineteen in twenty say so. */
const ONE_SIDED_95 = 1.645
/** An open string is bowed by a hand too: no single reading of it is surer than this, cents. */
const LEAST_SIGMA_CENTS = 1

/** What was heard for less has not settled, ms. */
const LEAST_LASTS_MS = 250

/**
 * Each open string, from all its readings: their mean, weighed by how sure each is. Of one that was heard the settled pitch counts:
 * no finger landed on it, and its attack is nobody's tuning.
 */
export function openStrings(landings: readonly Landing[]): OpenString[] {
  const byString = group(
    landings
      .filter(({ finger, heard }) => finger === 0 && (heard?.lastsMs ?? Infinity) >= LEAST_LASTS_MS)
      .map(({ stringIndex, cents, sigmaCents, heard }) => ({
        stringIndex,
        cents: heard?.settledCents ?? cents,
        sigmaCents: heard?.settledSigmaCents ?? sigmaCents,
      })),
    ({ stringIndex }) => stringIndex,
  )
  return [...byString]
    .map(([stringIndex, own]): OpenString => {
      const weights = own.map(({ sigmaCents }) => 1 / Math.max(LEAST_SIGMA_CENTS, sigmaCents) ** 2)
      const weight = sum(weights)
      const cents = sum(own, ({ cents: off }, i) => weights[i]! * off) / weight
      // Readings that differ by more than they should are less sure than they say.
      const spread = sum(own, ({ cents: off }, i) => weights[i]! * (off - cents) ** 2)
      const excess = own.length > 1 ? Math.max(1, spread / (own.length - 1)) : 1
      return { stringIndex, cents, sigmaCents: Math.sqrt(excess / weight), count: own.length }
    })
    .sort((a, b) => a.stringIndex - b.stringIndex)
}

/** The string that is surely out of tune, the worst of several. */
export function untunedString(opens: readonly OpenString[]): OpenString | undefined {
  return opens
    .filter(
      ({ cents, sigmaCents }) =>
        Math.abs(cents) - ONE_SIDED_95 * sigmaCents > OPEN_STRING_TOLERANCE_CENTS ||
        // One careful reading that is far off is worth a turn of the peg.
        Math.abs(cents) > 2 * OPEN_STRING_TOLERANCE_CENTS + sigmaCents,
    )
    .sort((a, b) => Math.abs(b.cents) - Math.abs(a.cents))[0]
}
