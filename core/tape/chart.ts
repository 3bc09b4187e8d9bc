import { centsOnString, hasPlace, isEven, placeOnString, stringLengthMm, type Stringing } from '../instrument'
import { ratioToCents } from '../pitch'
import { straightPlace } from './across'
import type { MarkSpec } from './marks'
import type { PlannedMark, PlannedString } from './plan'

/** A thin tape as teachers cut it, mm. Common practice, no source. */
export const DEFAULT_TAPE_WIDTH_MM = 3
/** Tapes that are sold, mm. Common practice, no source. */
export const TAPE_WIDTHS_MM = [0.5, 12] as const

/**
 * What a finger does on a tape: stand with its middle on the tape's middle, or touch it as a fence. The string is stopped
 * at the fingertip's bridge side, which is the side that touches: the fence's near edge lies on the place.
 */
export type TapeContact = 'centre' | 'touch'

export interface TapeShape {
  readonly widthMm: number
  readonly contact: TapeContact
}

/** What one string asks of a tape: where the note lies, and how far the tape as laid is from it. */
export interface StringPlace extends PlannedString {
  /** From the nut, mm. */
  readonly placeMm: number
  /** What a finger on the tape sounds off the note on this string, in cents; sharp is positive. */
  readonly remainderCents: number
}

/** One straight tape across all strings. All places in mm from the nut. */
export interface TapeMark extends MarkSpec {
  /** Where a finger on this tape stops the strings. */
  readonly stopMm: number
  readonly nearEdgeMm: number
  readonly middleMm: number
  readonly farEdgeMm: number
  /** From near edge to far edge, in cents at this place. */
  readonly widthCents: number
  readonly strings: readonly StringPlace[]
  /** The string with the largest remainder. */
  readonly worst: StringPlace
}

/** A thin tape that the fingertip stands on. */
export const DEFAULT_TAPE: TapeShape = { widthMm: DEFAULT_TAPE_WIDTH_MM, contact: 'centre' }

/**
 * Where the tapes of a plan go on an instrument's strings.
 *
 * @example chartTapes(stringing, planTapes(stringing, marksOfSchool(family, school)))
 * // half-size violin, 284.5 mm, fifths: first finger 31.6 mm, third finger 71.1 mm
 */
export function chartTapes(
  stringing: Stringing,
  plan: readonly PlannedMark[],
  tape: TapeShape = DEFAULT_TAPE,
): TapeMark[] {
  const lengthMm = stringLengthMm(stringing, 0)
  const even = isEven(stringing)
  return marksThere(stringing, plan).map(({ id, interval, finger, form, strings: planned, middleCents }) => {
    const stopMm = straightPlace(stringing, { strings: planned, middleCents })
    const middleMm = stopMm + (tape.contact === 'touch' ? tape.widthMm / 2 : 0)
    const nearEdgeMm = middleMm - tape.widthMm / 2
    const farEdgeMm = middleMm + tape.widthMm / 2
    const strings = planned.map((string, i) =>
      even && string.cents === middleCents
        ? placed(string, stopMm, 0)
        : placed(
            string,
            placeOnString(stringing, i, string.cents),
            (even ? middleCents : centsOnString(stringing, i, stopMm)) - string.cents,
          ),
    )
    let worst = strings[0]!
    for (const string of strings)
      if (Math.abs(string.remainderCents) > Math.abs(worst.remainderCents)) worst = string
    const widthCents = ratioToCents((lengthMm - nearEdgeMm) / (lengthMm - farEdgeMm))
    return {
      id,
      interval,
      finger,
      form,
      stopMm,
      nearEdgeMm,
      middleMm,
      farEdgeMm,
      widthCents,
      strings,
      worst,
    }
  })
}

/** The marks that have their places; where one has, those further up every string have theirs, and are not looked for. */
function marksThere(stringing: Stringing, plan: readonly PlannedMark[]): readonly PlannedMark[] {
  if (stringing.pressing === undefined) return plan
  let there: PlannedMark | undefined
  return plan.filter((mark) => {
    const isFurther = there?.strings.every(({ cents }, i) => cents <= mark.strings[i]!.cents) ?? false
    if (!isFurther && !isThere(stringing, mark)) return false
    there = mark
    return true
  })
}

/** Whether every string has the place that a planned tape marks: one that only sounds sharper has nothing to be marked. */
export function isThere(stringing: Stringing, { strings }: PlannedMark): boolean {
  return stringing.pressing === undefined || strings.every(({ cents }, i) => hasPlace(stringing, i, cents))
}

/** Field by field: a spread here costs more than all the arithmetic, and a page charts at every key. */
function placed({ open, note, cents }: PlannedString, placeMm: number, remainderCents: number): StringPlace {
  return { open, note, cents, placeMm, remainderCents }
}
