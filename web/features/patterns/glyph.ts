import type { AtlasCell } from '#core'
import { noPlacementSign } from '../../words/patterns'

/** Made as broad as a figure by the table's word spacing, so that fingers stand under one another. */
const SLOT = ' '
/** A finger that rests where the scale has no note. */
const RESTING = '–'
/** What players write where the hand is extended. */
const EXTENDED = 'x'

/**
 * A hand in a few signs: fingers a semitone apart stand side by side, others with a gap for each semitone between, all from
 * the position's own place on. `1 23 4` has 2 and 3 touching; an x stands before a 1 that drops back, or in the gap that
 * opens behind it.
 */
export function glyphOf(cell: AtlasCell): string {
  if (cell.kind === 'none') return noPlacementSign(cell)
  const origin = cell.position.firstFingerSemitones[0]! - 1
  const slots: string[] = []
  for (const stop of cell.stops) {
    const at = Math.max(0, stop.semitones - origin)
    slots[at] = stop.isInScale ? String(stop.finger) : RESTING
  }
  const first = Math.max(0, cell.stops[0]!.semitones - origin)
  if (cell.extension === 'back' && first > 0) slots[first - 1] = EXTENDED
  if (cell.extension === 'forward') slots[first + 1] = EXTENDED
  return Array.from(slots, (sign) => sign ?? SLOT).join('')
}
