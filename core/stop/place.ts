import { centsToRatio, ratioToCents } from '../pitch'

const CENTS_PER_NEPER = 1200 / Math.LN2

/**
 * Distance from the nut at which a string of `lengthMm` sounds `ratio` (≥ 1) above its open pitch: x = L (1 − 1/r).
 * Octave L/2, fifth L/3, fourth L/4, major third L/5. Source: Helmholtz, On the Sensations of Tone.
 */
export function placeOfRatio(lengthMm: number, ratio: number): number {
  return lengthMm * (1 - 1 / ratio)
}

/** Frequency ratio above the open string of a stop at `placeMm` (0 ≤ x < L). */
export function ratioAtPlace(lengthMm: number, placeMm: number): number {
  return lengthMm / (lengthMm - placeMm)
}

/** Distance from the nut of a stop `cents` above the open string, in mm. Negative cents lie behind the nut. */
export function placeOfCents(lengthMm: number, cents: number): number {
  return placeOfRatio(lengthMm, centsToRatio(cents))
}

/** Cents above the open string of a stop at `placeMm` (x < L). */
export function centsAtPlace(lengthMm: number, placeMm: number): number {
  return ratioToCents(ratioAtPlace(lengthMm, placeMm))
}

/** How many cents one millimetre is worth at `placeMm`: 1200 / (ln 2 · (L − x)). */
export function centsPerMm(lengthMm: number, placeMm: number): number {
  return CENTS_PER_NEPER / (lengthMm - placeMm)
}

/** How far a fingertip that sounds `errorCents` from its target really lies from `targetMm`, in mm towards the bridge. */
export function placeErrorMm(lengthMm: number, targetMm: number, errorCents: number): number {
  return placeOfCents(lengthMm, centsAtPlace(lengthMm, targetMm) + errorCents) - targetMm
}
