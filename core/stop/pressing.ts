import { centsAtPlace, centsPerMm, placeOfCents } from './place'

export const STRING_MATERIALS = ['steel', 'synthetic', 'gut'] as const
export type StringMaterial = (typeof STRING_MATERIALS)[number]

/** How far a string at pitch is stretched, as a part of its length. Typical values, from memory. */
export const STRAIN: Readonly<Record<StringMaterial, number>> = { steel: 0.005, synthetic: 0.04, gut: 0.03 }

/** How high the strings stand above the board, and what they are made of. */
export interface Pressing {
  readonly nutHeightMm: number
  readonly endHeightMm: number
  readonly material: StringMaterial
}

/** Heights beyond this are no fingerboard's; they are typing slips. */
export const HIGHEST_STRING_MM = 20

export type PressingFault = 'height_negative' | 'height_too_large' | 'height_not_a_number'

/** What is wrong with a height above the board in mm, if anything. */
export function heightFault(heightMm: number): PressingFault | undefined {
  if (!Number.isFinite(heightMm)) return 'height_not_a_number'
  if (heightMm < 0) return 'height_negative'
  return heightMm > HIGHEST_STRING_MM ? 'height_too_large' : undefined
}

/** Height of the string over the board at `placeMm`: linear from the nut to the board's end. */
export function stringHeightMm(pressing: Pressing, boardLengthMm: number, placeMm: number): number {
  return pressing.nutHeightMm + ((pressing.endHeightMm - pressing.nutHeightMm) * placeMm) / boardLengthMm
}

/**
 * How much sharper a string sounds for being pressed down at `placeMm`: its path grows by δ = (h²/2)(1/x + 1/(L − x)),
 * its tension with it, and its pitch by (600 / ln 2) · δ / (L · ε) cents. Derived: first order in δ, Hooke's law.
 */
export function pressingCents(
  lengthMm: number,
  boardLengthMm: number,
  placeMm: number,
  pressing: Pressing,
): number {
  const height = stringHeightMm(pressing, boardLengthMm, placeMm)
  const growthMm = ((height * height) / 2) * (1 / placeMm + 1 / (lengthMm - placeMm))
  return ((600 / Math.LN2) * growthMm) / (lengthMm * STRAIN[pressing.material])
}

/** Newton's steps end here, far below what a finger or an ear can do; two are mostly enough. */
const ENOUGH_CENTS = 1e-4
const MOST_STEPS = 8

/**
 * Where a string pressed down to the board sounds `cents` above its open pitch, in mm from the nut: a little nearer to
 * the nut than {@link placeOfCents} puts it.
 */
export function pressedPlace(
  lengthMm: number,
  boardLengthMm: number,
  cents: number,
  pressing: Pressing,
): number {
  const ideal = placeOfCents(lengthMm, cents)
  let place = ideal
  for (let step = 0; step < MOST_STEPS; step++) {
    const error =
      centsAtPlace(lengthMm, place) + pressingCents(lengthMm, boardLengthMm, place, pressing) - cents
    if (Math.abs(error) < ENOUGH_CENTS) break
    // Close behind the nut a high string is sharp wherever it is pressed: then the nut is as near as one gets.
    place = Math.max(place - error / centsPerMm(lengthMm, place), ideal / 2)
  }
  return place
}
