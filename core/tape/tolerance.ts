import type { BoardMeasures } from '../instrument'
import { placeErrorMm } from '../stop'

/** Half-widths a teacher asks for, cents: from about 5 ears notice; a trained player keeps 10, a beginner 20. From memory. */
export const TOLERANCES_CENTS = [5, 10, 20] as const

/** How far the finger may be from a place towards the nut and towards the bridge to stay within ± `cents`, mm. */
export function toleranceMm(
  lengthMm: number,
  placeMm: number,
  cents: number,
): { readonly behindMm: number; readonly beyondMm: number } {
  return {
    behindMm: -placeErrorMm(lengthMm, placeMm, -cents),
    beyondMm: placeErrorMm(lengthMm, placeMm, cents),
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

/**
 * The piece for a tape at `placeMm`. The girth is taken to grow evenly from the nut to the neck's end, where a measured
 * `girthMm` does not say better.
 */
export function tapePiece(board: BoardMeasures, placeMm: number, girthMm?: number): TapePiece {
  const boardWidthMm = board.nutWidthMm + ((board.endWidthMm - board.nutWidthMm) * placeMm) / board.lengthMm
  const girth =
    girthMm ?? board.girthAtNutMm + ((board.girthAtNeckEndMm - board.girthAtNutMm) * placeMm) / board.neckMm
  return {
    boardWidthMm,
    girthMm: girth,
    acrossMm: boardWidthMm + 2 * UNDER_EDGE_MM,
    roundMm: girth + OVERLAP_MM,
  }
}

/** A tape thicker than this lifts the string off the finger's place. Common practice, no source. */
export const THICK_TAPE_MM = 0.25
/** So is one that fills this part of the room under the string. Common practice, no source. */
const FRET_PART_OF_HEIGHT = 0.4

/** Whether a tape is thick enough to stop the string itself, as a fret does, whatever the finger does on it. */
export function actsAsFret(thicknessMm: number, stringHeightMm: number | undefined): boolean {
  return (
    thicknessMm > THICK_TAPE_MM ||
    (stringHeightMm !== undefined && thicknessMm > stringHeightMm * FRET_PART_OF_HEIGHT)
  )
}
