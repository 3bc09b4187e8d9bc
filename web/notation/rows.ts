import type { Clef, Score, ScoreNote } from '#core'

/** A line of the paper: its bars, and the clef it begins with. */
export interface Row {
  readonly clef: Clef
  readonly bars: readonly (readonly ScoreNote[])[]
  /** Notes and small clefs between them. */
  readonly signs: number
}

/** Room a note takes with its sign and finger. */
export const NOTE_PX = 32
const SIGNATURE_PX = 12
const CLEF_PX = 46
/** A clef between notes, in notes. */
const CLEF_NOTES = 0.9

/** What clef and signature take before the first note. */
export function headPx({ signs }: Score): number {
  return CLEF_PX + SIGNATURE_PX * Math.abs(signs)
}

/** Bars by line, as many as have room and at least one on each; a change of clef at the start of a line is that line's clef. */
export function rowsOf(score: Score, width: number): Row[] {
  const room = width - headPx(score)
  const rows: { clef: Clef; bars: (readonly ScoreNote[])[]; signs: number }[] = []
  let clef = score.clef
  let used = Infinity
  for (const bar of score.bars) {
    const changes = bar.filter((n) => n.clef !== undefined).length
    const signs = bar.length + CLEF_NOTES * changes
    const needs = signs * NOTE_PX
    if (used + needs > room) {
      rows.push({ clef: bar[0]?.clef ?? clef, bars: [], signs: 0 })
      used = 0
    }
    const row = rows.at(-1)!
    row.bars.push(bar)
    row.signs += signs
    used += needs
    clef = bar.findLast((n) => n.clef !== undefined)?.clef ?? clef
  }
  return rows
}
