import type { Finger, FingerFormId, Frame, Position } from '../../instrument'
import { midiNumber } from '../../pitch'
import { notesOnLetter, type Key } from '../key'
import { patternOf, WIDEST_STEP } from '../pattern'
import type { AtlasCell, PlacementContext, FingerStop } from '../types'
import { FINGERS, none, notesOf, stop } from './stops'

/** Semitones of the major and perfect intervals, by letters: a finger's usual places in first position. */
const USUAL = [0, 2, 4, 5, 7, 9, 11]

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
      stops.push(stop(context, key, parent, stringIndex, finger, n, above, 'usual'))
      semitones.push(above)
    }
  }
  if (semitones.length === 0) return none('no_note', stringIndex, position, [])
  if (semitones.at(-1)! > context.lastSemitone)
    return none('off_board', stringIndex, position, notesOf(stops))
  const base = semitones[0]!
  const { offsets } = context.family.frames[0]!
  const formed = stops.map((s) => ({ ...s, form: formOf(offsets, s.finger, s.semitones, base, letter) }))
  const fits = !isSliding && widest(semitones) <= WIDEST_STEP && narrowest(semitones) >= 1
  return {
    kind: 'placement',
    stringIndex,
    position,
    frameId: context.family.frames[0]!.id,
    extension: 'none',
    base,
    stops: formed,
    pattern: fits ? patternOf(context.family, 0, FINGERS, semitones) : undefined,
  }
}

/**
 * Low, usual or high. In first position as the tapes are named, by the interval above the open string; further up against
 * a first finger with 2 and 3 touching. Common practice, no source.
 */
function formOf(
  offsets: Frame['offsets'],
  finger: Finger,
  semitones: number,
  base: number,
  letter: number,
): FingerFormId {
  if (letter === 0 && finger === 1) return 'half'
  const number = letter + finger - 1
  const usual =
    letter === 1
      ? USUAL[number % 7]! + 12 * Math.floor(number / 7)
      : finger === 1
        ? USUAL[letter % 7]! + 12 * Math.floor(letter / 7)
        : base + (offsets[finger] ?? 0)
  return semitones < usual ? 'low' : semitones > usual ? 'high' : 'usual'
}

function widest(semitones: readonly number[]): number {
  let most = 0
  for (let i = 1; i < semitones.length; i++) most = Math.max(most, semitones[i]! - semitones[i - 1]!)
  return most
}

function narrowest(semitones: readonly number[]): number {
  let least = Infinity
  for (let i = 1; i < semitones.length; i++) least = Math.min(least, semitones[i]! - semitones[i - 1]!)
  return least
}
