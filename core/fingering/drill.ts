import type { FamilyId, Position } from '../instrument'
import type { Key } from '../key'
import {
  techniqueOf,
  type Drill,
  type DrillFault,
  type DrillNote,
  type Placement,
  type PlacementContext,
} from '../technique'
import { placementAt } from '../pattern'

export type DrillRun =
  | { readonly ok: true; readonly notes: readonly DrillNote[] }
  | {
      readonly ok: false
      /** The key has no hand there, or why its hand does not play this drill. */
      readonly code: 'no_hand' | DrillFault
      readonly stringIndex: number
    }

export function drillsFor(family: FamilyId): readonly Drill[] {
  return techniqueOf(family).drills
}

/** A drill on a string in a position of a key, its figure `times` times on each string; one that goes across the strings and back leaves out those it cannot be played on. */
export function drillNotes(
  context: PlacementContext,
  drill: Drill,
  key: Key,
  stringIndex: number,
  position: Position,
  times: number = drill.times,
): DrillRun {
  const all = context.tuning.map((_, index) => index)
  const there = drill.across === 'down' ? [...all].reverse() : all
  const strings = drill.across === undefined ? [stringIndex] : [...there, ...there.slice(0, -1).reverse()]
  const runs = strings.map((index) => oneString(context, drill, key, index, position, times))
  const notes = runs.flatMap((run) => (run.ok ? run.notes : []))
  return notes.length > 0 ? { ok: true, notes } : runs[0]!
}

function oneString(
  context: PlacementContext,
  drill: Drill,
  key: Key,
  stringIndex: number,
  position: Position,
  times: number,
): DrillRun {
  const cell = placementAt(context, key, stringIndex, position)
  if (cell.kind === 'none') return { ok: false, code: 'no_hand', stringIndex }
  const { family, frameIndex, tuning } = context
  const once = drill.notes(cell, {
    key,
    open: tuning[stringIndex]!,
    openAbove: tuning[stringIndex + 1],
    offsets: family.frames[frameIndex]!.offsets,
    handAbove(strings): Placement | undefined {
      if (tuning[stringIndex + strings] === undefined) return undefined
      const above = placementAt(context, key, stringIndex + strings, position)
      return above.kind === 'placement' ? above : undefined
    },
  })
  if (typeof once === 'string') return { ok: false, code: once, stringIndex }
  return { ok: true, notes: Array.from({ length: times }, () => once).flat() }
}
