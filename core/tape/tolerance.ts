import { boardWidthMm, centsOnString, placeOnString, type BoardMeasures, type Stringing } from '../instrument'

/** Half-widths a teacher asks for, cents: from about 5 ears notice; a trained player keeps 10, a beginner 20. From memory. */
export const TOLERANCES_CENTS = [5, 10, 20] as const

/** How far the finger may be from a place towards the nut and towards the bridge to stay within ± `cents`, mm. */
export function toleranceMm(
  stringing: Stringing,
  stringIndex: number,
  placeMm: number,
  cents: number,
): { readonly behindMm: number; readonly beyondMm: number } {
  const there = centsOnString(stringing, stringIndex, placeMm)
  return {
    behindMm: placeMm - placeOnString(stringing, stringIndex, there - cents),
    beyondMm: placeOnString(stringing, stringIndex, there + cents) - placeMm,
  }
}

/** How long a piece of tape to cut. */
export interface TapePiece {
  readonly boardWidthMm: number
  readonly girthMm: number
  /** Across the board, turned under its edges. */
  readonly acrossMm: number
  /** Once round the neck, ends overlapping. */
  readonly roundMm: number
}

/** Turned under each edge of the board. Common practice, no source. */
const UNDER_EDGE_MM = 5
/** Where the ends meet behind the neck. Common practice, no source. */
const OVERLAP_MM = 8

/** A girth that was measured, and where. */
export interface MeasuredGirth {
  readonly girthMm: number
  readonly placeMm: number
}

/**
 * The piece for a tape at `placeMm`. The girth is taken to grow evenly from the nut to the neck's end; one that was measured
 * somewhere is kept there, and grows from there as usual.
 */
export function tapePiece(board: BoardMeasures, placeMm: number, measured?: MeasuredGirth): TapePiece {
  const typicalAt = (mm: number) =>
    board.girthAtNutMm + ((board.girthAtNeckEndMm - board.girthAtNutMm) * mm) / board.neckMm
  const girthMm = typicalAt(placeMm) + (measured ? measured.girthMm - typicalAt(measured.placeMm) : 0)
  const widthMm = boardWidthMm(board, placeMm)
  return {
    boardWidthMm: widthMm,
    girthMm,
    acrossMm: widthMm + 2 * UNDER_EDGE_MM,
    roundMm: girthMm + OVERLAP_MM,
  }
}

/** A tape thicker than this lifts the string off the finger's place. Common practice, no source. */
export const THICK_TAPE_MM = 0.25
/** So is one that fills this part of the room under the string. Common practice, no source. */
const FRET_PART_OF_HEIGHT = 0.4

/** A neck and board differ by up to this part from what is typical of their length. Common practice, no source. */
const GIRTH_TOLERANCE = 0.4

/** What a girth at a place can be, mm; beyond it lies a slip of the ruler or the unit. */
export function girthBoundsMm(board: BoardMeasures, placeMm: number): readonly [low: number, high: number] {
  const typical = tapePiece(board, placeMm).girthMm
  return [typical * (1 - GIRTH_TOLERANCE), typical * (1 + GIRTH_TOLERANCE)]
}

/** Whether a tape is thick enough to stop the string itself, as a fret does, whatever the finger does on it. */
export function actsAsFret(thicknessMm: number, stringHeightMm: number | undefined): boolean {
  return (
    thicknessMm > THICK_TAPE_MM ||
    (stringHeightMm !== undefined && thicknessMm > stringHeightMm * FRET_PART_OF_HEIGHT)
  )
}
