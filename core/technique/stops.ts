import type { Finger, FingerFormId, Position } from '../instrument'
import type { Note } from '../pitch'
import { hasNote, type Key } from '../key'
import type { PlacementContext, FingerStop, NoPlacement } from './types'

export const FINGERS: readonly Finger[] = [1, 2, 3, 4]

/** A cell without a hand. */
export function none(
  reason: NoPlacement['reason'],
  stringIndex: number,
  position: Position,
  wanted: readonly Note[],
): NoPlacement {
  return { kind: 'none', stringIndex, position, reason, wanted }
}

/** One finger on a note of the parent scale; it rests where the key itself leaves the note out. */
export function stop(
  context: PlacementContext,
  key: Key,
  parent: Key,
  stringIndex: number,
  finger: Finger,
  n: Note,
  semitones: number,
  form: FingerFormId,
): FingerStop {
  const openString = openStringAt(context.openMidis, context.openMidis[stringIndex]! + semitones)
  return {
    finger,
    note: n,
    semitones,
    form,
    isInScale: parent === key || hasNote(key, n),
    openString,
  }
}

function openStringAt(openMidis: readonly number[], midi: number): number | undefined {
  for (let i = 0; i < openMidis.length; i++) if (openMidis[i] === midi) return i
  return undefined
}

export function notesOf(stops: readonly FingerStop[]): Note[] {
  return stops.map((s) => s.note)
}
