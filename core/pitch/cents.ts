/** Cents in the frequency ratio `ratio` (> 0): 1200 · log2(ratio). Source: Ellis in Helmholtz, On the Sensations of Tone. */
export function ratioToCents(ratio: number): number {
  return 1200 * Math.log2(ratio)
}

/** The frequency ratio of `cents`. Inverse of {@link ratioToCents}. */
export function centsToRatio(cents: number): number {
  return 2 ** (cents / 1200)
}

/** A pure fifth 3:2, in cents (701.955). */
export const PURE_FIFTH_CENTS = ratioToCents(3 / 2)

/** The syntonic comma 81:80, in cents (21.506): what four pure fifths overshoot a pure major third by. */
export const SYNTONIC_COMMA_CENTS = ratioToCents(81 / 80)
