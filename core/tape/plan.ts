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

/** Cents that differ by less are one interval, rounded on the way: strings that ask for the same are asked once. */
const SAME_CENTS = 1e-9

/**
 * The pitches behind a set of tapes. They hold for every size, so a page that follows a length as it is typed plans once.
 */
export function planTapes(
  { tuning, system }: Pick<Stringing, 'tuning' | 'system'>,
  marks: readonly MarkSpec[],
): PlannedMark[] {
  return marks.map((mark) => {
    const notes = tuning.map((open) => transpose(open, mark.interval))
    const cents = notes.map((note, i) => centsAboveOpen(system, tuning[i]!, note))
    const [lowest, highest] = [Math.min(...cents), Math.max(...cents)]
    const middleCents = (lowest + highest) / 2
    const isOne = highest - lowest < SAME_CENTS
    const strings = notes.map((note, i) => ({
      open: tuning[i]!,
      note,
      cents: isOne ? middleCents : cents[i]!,
    }))
    return { ...mark, strings, middleCents }
  })
}
