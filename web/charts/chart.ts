import type { ScaleTime } from 'd3-scale'
import { utcFormat } from 'd3-time-format'

/** Room around what is drawn, px. */
export interface ChartMargins {
  readonly top: number
  readonly right: number
  readonly bottom: number
  readonly left: number
}

/** Where things are drawn: the chart without its margins, px from its top left corner. */
export interface ChartArea extends ChartMargins {
  readonly width: number
  readonly height: number
}

/** Something written under the chart. */
export interface ChartTick {
  readonly at: number
  readonly label: string
}

/** About half as broad as a date is written. */
const HALF_LABEL_PX = 26

/** How a word at a place is set so that it stays between two edges: it ends, or begins, at its place near either. */
export function anchorWithin(at: number, left: number, right: number): 'start' | 'middle' | 'end' {
  if (at > right - HALF_LABEL_PX) return 'end'
  return at < left + HALF_LABEL_PX ? 'start' : 'middle'
}

/** As many round dates as have room, each `stepPx` wide. */
export function dateTicks(
  x: ScaleTime<number, number>,
  width: number,
  format: string,
  stepPx: number,
): ChartTick[] {
  const name = utcFormat(format)
  return x.ticks(Math.max(2, Math.floor(width / stepPx))).map((date) => ({ at: x(date), label: name(date) }))
}
