import { ratioToCents } from '../pitch'
import { planTapes, type PlannedMark, type PlannedString, type PlanRequest } from './plan'

/** A thin tape as teachers cut it, mm. Common practice, no source. */
export const DEFAULT_TAPE_WIDTH_MM = 3

/** What one string asks of a tape: where the note lies, and how far the tape as laid is from it. */
export interface StringPlace extends PlannedString {
  /** From the nut, mm. */
  readonly placeMm: number
}

/** One straight tape across all strings. All places in mm from the nut. */
export interface TapeMark extends Pick<PlannedMark, 'finger' | 'shapeId' | 'worst'> {
  readonly nearEdgeMm: number
  readonly middleMm: number
  readonly farEdgeMm: number
  /** From near edge to far edge, in cents at this place. */
  readonly widthCents: number
  readonly strings: readonly StringPlace[]
}

/**
 * Where the tapes of a plan go on strings of `lengthMm` (nut edge to bridge top), each `tapeWidthMm` wide.
 *
 * @example chartTapes(planTapes({ family: violin, tuning: violin.tuning, system: fifths, school }), 284.5)
 * // 1st finger 31.6 mm, 3rd finger 71.1 mm
 */
export function chartTapes(
  plan: readonly PlannedMark[],
  lengthMm: number,
  tapeWidthMm: number = DEFAULT_TAPE_WIDTH_MM,
): TapeMark[] {
  return plan.map(({ finger, shapeId, strings, worst, part }) => {
    const middleMm = lengthMm * part
    const nearEdgeMm = middleMm - tapeWidthMm / 2
    const farEdgeMm = middleMm + tapeWidthMm / 2
    return {
      finger,
      shapeId,
      nearEdgeMm,
      middleMm,
      farEdgeMm,
      widthCents: ratioToCents((lengthMm - nearEdgeMm) / (lengthMm - farEdgeMm)),
      strings: strings.map((string) => placeOn(string, lengthMm)),
      worst,
    }
  })
}

/** Field by field: a spread here costs more than all the arithmetic, and a page charts at every key. */
function placeOn({ open, note, cents, remainderCents, part }: PlannedString, lengthMm: number): StringPlace {
  return { open, note, cents, remainderCents, part, placeMm: lengthMm * part }
}

/** {@link planTapes} and {@link chartTapes} in one, for a length that is known once. */
export function tapeChart(
  request: PlanRequest & { readonly lengthMm: number; readonly tapeWidthMm?: number },
): TapeMark[] {
  return chartTapes(planTapes(request), request.lengthMm, request.tapeWidthMm)
}
