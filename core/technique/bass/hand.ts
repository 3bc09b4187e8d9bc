import type { Finger, Position } from '../../instrument'
import { noteInKey, type Key } from '../../key'
import { patternOf } from '../pattern'
import type { AtlasCell, PlacementContext, FingerStop } from '../types'
import { FINGERS, none, notesOf, stop } from '../stops'

/** Bass: the frame stands on a semitone, and the key uses the fingers that have one of its notes. */
export function fingerASemitone(
  context: PlacementContext,
  key: Key,
  parent: Key,
  stringIndex: number,
  position: Position,
): AtlasCell {
  const frame = context.family.frames[context.frameIndex]!
  const open = context.openMidis[stringIndex]!
  const base = position.firstFingerSemitones[0]!
  const stops: FingerStop[] = []
  const fingers: Finger[] = []
  const semitones: number[] = []
  for (const finger of FINGERS) {
    const offset = frame.offsets[finger]
    if (offset === undefined) continue
    const n = noteInKey(parent, open + base + offset)
    if (!n) continue
    stops.push(stop(context, key, parent, stringIndex, finger, n, base + offset, 'usual'))
    fingers.push(finger)
    semitones.push(base + offset)
  }
  if (stops.length === 0) return none('no_note', stringIndex, position, [])
  if (semitones.at(-1)! > context.lastSemitone)
    return none('off_board', stringIndex, position, notesOf(stops))
  return {
    kind: 'placement',
    stringIndex,
    position,
    frameId: frame.id,
    extension: 'none',
    base,
    stops,
    pattern: patternOf(context.family, context.frameIndex, fingers, semitones),
  }
}
