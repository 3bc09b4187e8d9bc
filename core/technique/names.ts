import type { Finger, FingerFormId, Frame, Position } from '../instrument'

/** Semitones of the major and perfect intervals, by letters. */
const USUAL = [0, 2, 4, 5, 7, 9, 11]
const HALF_POSITION = 1

/** Semitones above the open string of a position's own place for the first finger: the major or perfect interval of its letter. */
export function ownPlace({ letter, firstFingerSemitones }: Position): number {
  if (letter === undefined) return firstFingerSemitones[0]!
  if (letter === 0) return HALF_POSITION
  return USUAL[letter % 7]! + 12 * Math.floor(letter / 7)
}

/**
 * Low, usual or high, the same for every key and string: against the frame at rest with 1 on the position's own place. In
 * first position that is how tapes are named. Common practice, no source.
 */
export function formOf(
  offsets: Frame['offsets'],
  position: Position,
  finger: Finger,
  semitones: number,
  own = ownPlace(position),
): FingerFormId {
  const usual = own + (offsets[finger] ?? 0)
  if (position.letter === 0 && finger === 1 && semitones === usual) return 'half'
  return semitones < usual ? 'low' : semitones > usual ? 'high' : 'usual'
}
