import type { Family, Position } from '../instrument'
import { placementAt, placementContext, type PlacementOptions } from './placement'
import type { Key } from '../key'
import type { Note } from '../pitch'
import type { AtlasCell, FingerStop } from '../technique'

/** Every hand of some keys, by key, position and string, in the orders they were given in. */
export type Atlas = readonly (readonly (readonly AtlasCell[])[])[]

/** All cells of `keys` × `positions` × strings for one tuning. */
export function atlasOf(
  family: Family,
  tuning: readonly Note[],
  keys: readonly Key[],
  positions: readonly Position[],
  options: PlacementOptions = {},
): Atlas {
  const context = placementContext(family, tuning, options)
  return keys.map((key) =>
    positions.map((position) =>
      tuning.map((_, stringIndex) => placementAt(context, key, stringIndex, position)),
    ),
  )
}

/** One finger that lies elsewhere in another key. */
export interface FingerMove {
  readonly stringIndex: number
  readonly from: FingerStop
  readonly to: FingerStop
  /** Towards the bridge; negative towards the nut. */
  readonly semitones: number
}

export interface KeyDiff {
  readonly moves: readonly FingerMove[]
  /** Strings whose hand is another one: another frame, or one of the two keys asks nothing there. */
  readonly otherHands: readonly number[]
}

/** What changes from one key to another in one position, the strings of both in the same order. */
export function keyDiff(from: readonly AtlasCell[], to: readonly AtlasCell[]): KeyDiff {
  const moves: FingerMove[] = []
  const otherHands: number[] = []
  from.forEach((a, stringIndex) => {
    const b = to[stringIndex]
    if (b === undefined || (a.kind === 'none' && b.kind === 'none')) return
    if (a.kind === 'none' || b.kind === 'none' || !haveSameFingers(a.stops, b.stops))
      return void (isSamePlacement(a, b) || otherHands.push(stringIndex))
    a.stops.forEach((stop, i) => {
      const other = b.stops[i]!
      if (other.semitones !== stop.semitones)
        moves.push({ stringIndex, from: stop, to: other, semitones: other.semitones - stop.semitones })
    })
  })
  return { moves, otherHands }
}

function haveSameFingers(a: readonly FingerStop[], b: readonly FingerStop[]): boolean {
  return a.length === b.length && a.every((stop, i) => stop.finger === b[i]!.finger)
}

/** Whether two cells ask the same of the hand, whatever the notes are called. */
export function isSamePlacement(a: AtlasCell, b: AtlasCell | undefined): boolean {
  if (b === undefined || a.kind === 'none' || b.kind === 'none') return a.kind === b?.kind
  return (
    haveSameFingers(a.stops, b.stops) && a.stops.every((stop, i) => stop.semitones === b.stops[i]!.semitones)
  )
}

/** Ids of the patterns a row of hands asks for that are not among `known`, each once. */
export function newPatterns(cells: readonly AtlasCell[], known: ReadonlySet<string>): string[] {
  const ids = cells.flatMap((cell) =>
    cell.kind === 'placement' && cell.pattern && cell.pattern.steps.length > 0 ? [cell.pattern.id] : [],
  )
  return [...new Set(ids)].filter((id) => !known.has(id))
}
