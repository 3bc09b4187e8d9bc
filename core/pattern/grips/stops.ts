import type { Finger, FingerFormId, Position } from '../../instrument'
import type { Note } from '../../pitch'
import { hasNote, type Key } from '../key'
import type { HandContext, HandStop, NoHand } from '../types'

export const FINGERS: readonly Finger[] = [1, 2, 3, 4]

/** A cell without a hand. */
export function none(
  reason: NoHand['reason'],
  stringIndex: number,
  position: Position,
  wanted: readonly Note[],
): NoHand {
  return { kind: 'none', stringIndex, position, reason, wanted }
}

/** One finger on a note of the key whose hand it is; it rests where the key that is played leaves the note out. */
export function stop(
  context: HandContext,
  key: Key,
  played: Key,
  stringIndex: number,
  finger: Finger,
  n: Note,
  semitones: number,
  form: FingerFormId,
): HandStop {
  const midi = context.openMidis[stringIndex]! + semitones
  const openString = context.openMidis.indexOf(midi)
  return {
    finger,
    note: n,
    semitones,
    form,
    isPlayed: played === key || hasNote(key, n),
    openString: openString < 0 ? undefined : openString,
  }
}

export function notesOf(stops: readonly HandStop[]): Note[] {
  return stops.map((s) => s.note)
}
