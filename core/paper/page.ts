/** Papers a studio prints on, mm. Source: ISO 216 (A4); ANSI/ASME Y14.1 A (Letter, 8.5 × 11 in). */
export const PAPERS = {
  a4: { widthMm: 210, heightMm: 297 },
  letter: { widthMm: 215.9, heightMm: 279.4 },
} as const
export type PaperId = keyof typeof PAPERS

/** What a page is drawn from, everything in mm from its upper left corner. */
export type PageItem =
  | {
      readonly kind: 'line'
      readonly x1: number
      readonly y1: number
      readonly x2: number
      readonly y2: number
      readonly widthMm: number
      readonly isDashed?: boolean
      /** What the line stands for, for those who measure a print: the place from the nut. */
      readonly placeMm?: number
    }
  | { readonly kind: 'band'; readonly x: number; readonly y: number; readonly w: number; readonly h: number }
  | {
      readonly kind: 'circle'
      readonly x: number
      readonly y: number
      readonly r: number
      readonly widthMm: number
      /** White paper inside, black, or nothing. */
      readonly fill: 'white' | 'black' | 'none'
      readonly isDashed?: boolean
    }
  | {
      readonly kind: 'text'
      readonly x: number
      readonly y: number
      readonly sizeMm: number
      readonly text: string
      readonly isBold?: boolean
      /** In the middle of x rather than from it on. */
      readonly isCentred?: boolean
      readonly isWhite?: boolean
    }
  | {
      /** An outline in its own unit, set down at x and y and `scaleX` and `scaleY` mm a unit large. */
      readonly kind: 'path'
      readonly d: string
      readonly x: number
      readonly y: number
      readonly scaleX: number
      readonly scaleY: number
      /** Of a line along it, mm; filled without one. */
      readonly widthMm?: number
    }

export interface Page {
  readonly widthMm: number
  readonly heightMm: number
  readonly items: readonly PageItem[]
}
