import type { Clef, Score, ScoreNote } from '#core'

/** A line of the paper: its bars, and the clef it begins with. */
export interface Row {
  readonly clef: Clef
  readonly bars: readonly (readonly ScoreNote[])[]
  /** Notes and small clefs between them. */
  readonly signs: number
  readonly isLast: boolean
}

/** Room a note takes with its sign and finger. */
export const NOTE_PX = 30
const SIGNATURE_PX = 12
const CLEF_PX = 46
/** A clef between notes, in notes. */
export const CLEF_NOTES = 1.7
/** What a bar line takes, in notes. */
export const BAR_NOTES = 0.5

/** What clef and signature take before the first note. */
export function headPx({ signs }: Score): number {
  return CLEF_PX + SIGNATURE_PX * Math.abs(signs)
}

/**
 * Bars by line, as few lines as have room for them and as even as they come, at least one bar on each; a change of clef at
 * the start of a line is that line's clef.
 */
export function rowsOf(score: Score, width: number): Row[] {
  const room = width - headPx(score)
  const needs = score.bars.map(
    (bar) => NOTE_PX * (BAR_NOTES + bar.length + CLEF_NOTES * bar.filter((n) => n.clef !== undefined).length),
  )
  const fewest = split(needs, room).length
  // The narrowest line that needs no more of them.
  let least = Math.max(...needs, 0)
  while (split(needs, least).length > fewest) least += NOTE_PX / 2
  let clef = score.clef
  return split(needs, least).map(([from, to], index, all) => {
    const bars = score.bars.slice(from, to)
    const own = bars[0]![0]?.clef ?? clef
    const signs = needs.slice(from, to).reduce((a, b) => a + b, 0) / NOTE_PX
    clef = bars.flat().findLast((n) => n.clef !== undefined)?.clef ?? own
    return { clef: own, bars, signs, isLast: index === all.length - 1 }
  })
}

/** From which bar to which, one line after the other. */
function split(needs: readonly number[], room: number): [from: number, to: number][] {
  const lines: [number, number][] = []
  let used = Infinity
  needs.forEach((px, bar) => {
    if (used + px > room) {
      lines.push([bar, bar])
      used = 0
    }
    lines.at(-1)![1] = bar + 1
    used += px
  })
  return lines
}
