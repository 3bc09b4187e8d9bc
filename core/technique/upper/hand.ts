import type { Position } from '../../instrument'
import { midiNumber } from '../../pitch'
import { notesOnLetter, type Key } from '../../key'
import { formOf, ownPlace } from '../names'
import { patternOf, WIDEST_STEP } from '../pattern'
import type { AtlasCell, PlacementContext, FingerStop } from '../types'
import { FINGERS, none, notesOf, stop } from '../stops'

/** Violin and viola: finger f takes the f-th letter of the position, wherever the key puts it. */
export function fingerALetter(
  context: PlacementContext,
  key: Key,
  parent: Key,
  stringIndex: number,
  position: Position,
): AtlasCell {
  const letter = position.letter!
  const open = context.openMidis[stringIndex]!
  const { id: frameId, offsets } = context.family.frames[0]!
  const own = ownPlace(position)
  const stops: FingerStop[] = []
  const semitones: number[] = []
  let isSliding = false
  for (const finger of FINGERS) {
    const number = context.openLetters[stringIndex]! + letter + finger - 1
    const notes = notesOnLetter(parent, number)
    if (notes.length > 1) isSliding = true
    for (const n of notes) {
      const above = midiNumber(n) - open
      if (above < 1) {
        // A letter with two notes keeps the one that can be stopped.
        if (notes.length > 1) continue
        return none('open_string', stringIndex, position, [n])
      }
      const form = formOf(offsets, position, finger, above, own)
      stops.push(stop(context, key, parent, stringIndex, finger, n, above, form))
      semitones.push(above)
    }
  }
  if (semitones.length === 0) return none('no_note', stringIndex, position, [])
  if (semitones.at(-1)! > context.lastSemitone)
    return none('off_board', stringIndex, position, notesOf(stops))
  const fits = !isSliding && isPattern(semitones)
  return {
    kind: 'placement',
    stringIndex,
    position,
    frameId,
    extension: 'none',
    base: semitones[0]!,
    stops,
    pattern: fits ? patternOf(context.family, 0, FINGERS, semitones) : undefined,
  }
}

function isPattern(semitones: readonly number[]): boolean {
  for (let i = 1; i < semitones.length; i++) {
    const step = semitones[i]! - semitones[i - 1]!
    if (step < 1 || step > WIDEST_STEP) return false
  }
  return true
}
