import { placeOfNote, type Position, type Stringing } from '../instrument'
import type { Key } from '../key'
import { hasNote } from '../key'
import { diatonicNumber, midiNumber, type Note } from '../pitch'
import { placementAt } from '../pattern'
import { techniqueOf, type DrillNote, type PlacementContext } from '../technique'

/** Two notes sounded together on neighbouring strings. */
export interface DoubleStop {
  readonly lower: DrillNote
  readonly upper: DrillNote
  /** Between the two places along the strings; none with an open string. */
  readonly spreadMm: number
  /** Whether this hand spans it without strain; undefined of a hand that was never measured. */
  readonly isInReach: boolean | undefined
}

/** First steps: the interval by its letters, 4 against the next open string as a unison. */
export const DOUBLE_STOPS = { thirds: 2, sixths: 5, octaves: 7, fourth_against_open: 0 } as const
export type DoubleStopKind = keyof typeof DOUBLE_STOPS
export const DOUBLE_STOP_KINDS = Object.keys(DOUBLE_STOPS) as DoubleStopKind[]

export interface DoubleStopRequest {
  readonly key: Key
  readonly kind: DoubleStopKind
  readonly position: Position
  /** Comfortable from 1 to 4 on one string, mm; null of a hand nobody measured. */
  readonly reachMm: number | null
}

/**
 * Every double stop of one kind that a key has under one hand, string pair by string pair from the lowest. Both fingers lie
 * in one frame, none of them stops both strings. Common practice, no source. An octave over two strings that are not
 * neighbours (bass) cannot be bowed together and is none.
 */
export function doubleStops(
  context: PlacementContext,
  stringing: Stringing,
  { key, kind, position, reachMm }: DoubleStopRequest,
): DoubleStop[] {
  const { tuning, family } = context
  const technique = techniqueOf(family.id)
  return tuning.slice(0, -1).flatMap((_, lowerString) => {
    const [low, high] = [lowerString, lowerString + 1].map((index) =>
      notesUnder(context, key, index, position),
    )
    return low!.flatMap((lower) =>
      high!.flatMap((upper): DoubleStop[] => {
        if (diatonicNumber(upper.note) - diatonicNumber(lower.note) !== DOUBLE_STOPS[kind]) return []
        if (kind === 'octaves' && midiNumber(upper.note) - midiNumber(lower.note) !== 12) return []
        if (kind === 'fourth_against_open' && !(lower.finger === 4 && isUnison(lower.note, upper.note)))
          return []
        const isOpen = lower.finger === 0 || upper.finger === 0
        if (!isOpen && !technique.holds(context, [lower, upper])) return []
        const [a, b] = [lower, upper].map((n) => placeOfNote(stringing, n.stringIndex, n.note))
        const spreadMm = isOpen ? 0 : Math.abs(b! - a!)
        return [{ lower, upper, spreadMm, isInReach: reachMm === null ? undefined : spreadMm <= reachMm }]
      }),
    )
  })
}

function isUnison(a: Note, b: Note): boolean {
  return midiNumber(a) === midiNumber(b)
}

function notesUnder(
  context: PlacementContext,
  key: Key,
  stringIndex: number,
  position: Position,
): DrillNote[] {
  const open = context.tuning[stringIndex]!
  const cell = placementAt(context, key, stringIndex, position)
  const stops =
    cell.kind === 'none'
      ? []
      : cell.stops
          .filter(({ isInScale }) => isInScale)
          .map(({ note, finger, semitones }): DrillNote => ({ note, stringIndex, finger, semitones }))
  return hasNote(key, open) ? [{ note: open, stringIndex, finger: 0, semitones: 0 }, ...stops] : stops
}
