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
  /** One a string, lowest first, where they are not all of that: a steel E among synthetic strings. */
  readonly materials?: readonly StringMaterial[] | null | undefined
}

/** What one string is made of, under the heights of all. */
export function pressingOn(pressing: Pressing, stringIndex: number): Pressing {
  const material = pressing.materials?.[stringIndex]
  return material === undefined ? pressing : { ...pressing, material }
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
  // At the nut nothing is pressed; a string that stands on it over no height is not stretched there either.
  if (placeMm === 0) return height === 0 ? 0 : Infinity
  const growthMm = ((height * height) / 2) * (1 / placeMm + 1 / (lengthMm - placeMm))
  return ((600 / Math.LN2) * growthMm) / (lengthMm * STRAIN[pressing.material])
}

/** Newton's steps end here, far below what a finger or an ear can do; two are mostly enough. */
const ENOUGH_CENTS = 1e-4
const MOST_STEPS = 20
/** Nobody stops a string nearer to the nut than this part of it; a place there is none. Common practice, no source. */
const NEAREST_PART = 0.005

/**
 * Where a string pressed down to the board sounds `cents` above its open pitch, in mm from the nut: a little nearer to
 * the nut than {@link placeOfCents} puts it. 0 for the open string. Undefined where there is no such place: close behind the
 * nut a string that stands high is sharper than that wherever it is pressed.
 */
export function pressedPlace(
  lengthMm: number,
  boardLengthMm: number,
  cents: number,
  pressing: Pressing,
): number | undefined {
  if (cents === 0) return 0
  let place = placeOfCents(lengthMm, cents)
  // The pitch over the place is convex, and at the ideal place too high: Newton's steps come down to the place from above, and
  // where there is none they find the lowest pitch still too high.
  for (let step = 0; step < MOST_STEPS; step++) {
    const error =
      centsAtPlace(lengthMm, place) + pressingCents(lengthMm, boardLengthMm, place, pressing) - cents
    if (Math.abs(error) < ENOUGH_CENTS) return place
    const slope = centsPerMm(lengthMm, place) + pressingSlope(lengthMm, boardLengthMm, place, pressing)
    if (!(slope > 0)) return undefined
    place -= error / slope
    if (!(place > lengthMm * NEAREST_PART)) return undefined
  }
  return undefined
}

/** How {@link pressingCents} changes with the place, cents per mm: its derivative. */
function pressingSlope(lengthMm: number, boardLengthMm: number, placeMm: number, pressing: Pressing): number {
  const { nutHeightMm, endHeightMm, material } = pressing
  const height = stringHeightMm(pressing, boardLengthMm, placeMm)
  const steepness = (endHeightMm - nutHeightMm) / boardLengthMm
  const rest = lengthMm - placeMm
  const growth =
    height * steepness * (1 / placeMm + 1 / rest) +
    ((height * height) / 2) * (1 / rest ** 2 - 1 / placeMm ** 2)
  return ((600 / Math.LN2) * growth) / (lengthMm * STRAIN[material])
}
