import type { Family } from './family'

/** A board in mm, scaled to one instrument. */
export type BoardMeasures = { readonly [K in keyof Family['board']]: number }

/** The board of an instrument with this string length, in proportion to its family's full size; all values in mm. */
export function boardFor({ board }: Family, stringLengthMm: number): BoardMeasures {
  const scale = stringLengthMm / board.stringLengthMm
  return {
    stringLengthMm,
    lengthMm: board.lengthMm * scale,
    nutWidthMm: board.nutWidthMm * scale,
    endWidthMm: board.endWidthMm * scale,
    spreadAtNutMm: board.spreadAtNutMm * scale,
    spreadAtBridgeMm: board.spreadAtBridgeMm * scale,
    girthAtNutMm: board.girthAtNutMm * scale,
    girthAtNeckEndMm: board.girthAtNeckEndMm * scale,
    neckMm: board.neckMm * scale,
  }
}

/** Width of the board at `placeMm` from the nut, mm: it grows evenly to the board's end. */
export function boardWidthMm({ nutWidthMm, endWidthMm, lengthMm }: BoardMeasures, placeMm: number): number {
  return nutWidthMm + ((endWidthMm - nutWidthMm) * placeMm) / lengthMm
}

/** From the lowest to the highest string at `placeMm` from the nut, mm: it grows evenly to the bridge. */
export function stringSpreadMm(
  { spreadAtNutMm, spreadAtBridgeMm, stringLengthMm }: BoardMeasures,
  placeMm: number,
): number {
  return spreadAtNutMm + ((spreadAtBridgeMm - spreadAtNutMm) * placeMm) / stringLengthMm
}

/** How far string `stringIndex` of `count` lies from the board's middle at `placeMm`, mm; the highest is positive. */
export function stringAcrossMm(
  board: BoardMeasures,
  count: number,
  stringIndex: number,
  placeMm: number,
): number {
  return (stringIndex / (count - 1) - 0.5) * stringSpreadMm(board, placeMm)
}
