import { centsAtPlace, placeOfCents } from './place'
import { pressedPlace, pressingCents, type Pressing } from './pressing'
import { placeSigmaMm, type RingFit } from './fit'

/** The strings as they lie on one instrument: what turns a pitch into a place. */
export interface StringBed {
  /** Nut edge to bridge top, mm: one length for all strings, or one a string, lowest first. */
  readonly lengthsMm: readonly number[]
  readonly boardLengthMm: number
  /** Missing where pressing is not reckoned with. */
  readonly pressing?: Pressing | undefined
  /** What places found by ring have taught about it. */
  readonly fit?: RingFit | undefined
}

/**
 * Lengths for `strings` strings: one a string where each was measured, otherwise the one for all. Lengths of strings that
 * have since been changed to another number say nothing of the new ones.
 */
export function lengthsFor(
  strings: number,
  {
    lengthMm,
    stringLengthsMm,
  }: { readonly lengthMm: number; readonly stringLengthsMm: readonly number[] | null },
): readonly number[] {
  return stringLengthsMm?.length === strings ? stringLengthsMm : [lengthMm]
}

/** Measured length of a string, mm. */
export function stringLengthMm({ lengthsMm }: StringBed, stringIndex: number): number {
  const length = lengthsMm.length === 1 ? lengthsMm[0] : lengthsMm[stringIndex]
  if (length === undefined) throw new Error('a string bed has one length, or one for each string')
  return length
}

/** Where string `stringIndex` sounds `cents` above its open pitch, mm from the nut. */
export function placeOnBed(bed: StringBed, stringIndex: number, cents: number): number {
  const length = stringLengthMm(bed, stringIndex) + (bed.fit?.lengthCorrectionMm ?? 0)
  const place = bed.pressing
    ? pressedPlace(length, bed.boardLengthMm, cents, bed.pressing)
    : placeOfCents(length, cents)
  return place + (bed.fit?.nutOffsetMm ?? 0)
}

/** What string `stringIndex` sounds when stopped at `placeMm`, in cents above its open pitch. */
export function centsOnBed(bed: StringBed, stringIndex: number, placeMm: number): number {
  const length = stringLengthMm(bed, stringIndex) + (bed.fit?.lengthCorrectionMm ?? 0)
  const place = placeMm - (bed.fit?.nutOffsetMm ?? 0)
  const pressed = bed.pressing ? pressingCents(length, bed.boardLengthMm, place, bed.pressing) : 0
  return centsAtPlace(length, place) + pressed
}

/** How far pressing moves a place, mm; negative is towards the nut. */
export function pressShiftMm(bed: StringBed, stringIndex: number, cents: number): number {
  if (!bed.pressing) return 0
  const length = stringLengthMm(bed, stringIndex)
  return pressedPlace(length, bed.boardLengthMm, cents, bed.pressing) - placeOfCents(length, cents)
}

/** Standard deviation of a place, mm; undefined where nothing was found by ring. */
export function sigmaOnBed(bed: StringBed, cents: number): number | undefined {
  return bed.fit && placeSigmaMm(bed.fit, cents)
}

/** Whether every string has the same place for the same interval. */
export function isEven({ lengthsMm }: StringBed): boolean {
  return lengthsMm.every((length) => length === lengthsMm[0])
}
