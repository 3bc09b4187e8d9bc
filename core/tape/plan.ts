import type { Stringing } from '../instrument'
import { centsAboveOpen, transpose, type Note } from '../pitch'
import type { MarkSpec } from './marks'

/** What one string asks of a tape, whatever its length. */
export interface PlannedString {
  readonly open: Note
  readonly note: Note
  /** Above the open string. */
  readonly cents: number
}

/** One tape in terms of pitch alone. */
export interface PlannedMark extends MarkSpec {
  readonly strings: readonly PlannedString[]
  /** Midway between the highest and the lowest that the strings ask for, cents above the open string. */
  readonly middleCents: number
}

/**
 * The pitches behind a set of tapes. They hold for every size, so a page that follows a length as it is typed plans once.
 */
export function planTapes(
  { tuning, system }: Pick<Stringing, 'tuning' | 'system'>,
  marks: readonly MarkSpec[],
): PlannedMark[] {
  return marks.map((mark) => {
    const strings = tuning.map((open) => {
      const note = transpose(open, mark.interval)
      return { open, note, cents: centsAboveOpen(system, open, note) }
    })
    const cents = strings.map((string) => string.cents)
    return { ...mark, strings, middleCents: (Math.min(...cents) + Math.max(...cents)) / 2 }
  })
}
