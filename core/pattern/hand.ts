import type { Family, Position } from '../instrument'
import { diatonicNumber, midiNumber, type Note } from '../pitch'
import { fingerALetter } from './grips/letters'
import { fingerASemitone } from './grips/semitones'
import { threeLetters } from './grips/three-letters'
import { keyOf, type Key } from './key'
import type { HandCell, HandContext } from './types'

export interface HandOptions {
  /** Id of one of the family's frames; the first one without it. */
  readonly frameId?: string | undefined
}

/** Prepares the strings of one instrument; throws on a frame that the family does not have. */
export function handContext(family: Family, tuning: readonly Note[], options: HandOptions = {}): HandContext {
  const frameIndex =
    options.frameId === undefined ? 0 : family.frames.findIndex((f) => f.id === options.frameId)
  if (frameIndex < 0) throw new Error(`${family.id} has no frame ${options.frameId}`)
  const { lengthMm, stringLengthMm } = family.board
  return {
    family,
    tuning,
    openMidis: tuning.map(midiNumber),
    openLetters: tuning.map(diatonicNumber),
    frameIndex,
    lastSemitone: Math.floor(12 * Math.log2(stringLengthMm / (stringLengthMm - lengthMm))),
  }
}

/**
 * The hand that `key` asks for on a string in a position: which finger on which note, the frame it is held in, and its
 * pattern. Works for any tuning and number of strings; the fifth string of a bass is one more row.
 */
export function handAt(context: HandContext, key: Key, stringIndex: number, position: Position): HandCell {
  const played = key.mode.hand === undefined ? key : handKey(key, key.mode.hand)
  switch (context.family.grip) {
    case 'letters':
      return fingerALetter(context, key, played, stringIndex, position)
    case 'three_letters':
      return threeLetters(context, key, played, stringIndex, position)
    case 'semitones':
      return fingerASemitone(context, key, played, stringIndex, position)
  }
}

const handKeys = new Map<string, Key>()

function handKey(key: Key, modeId: Key['mode']['id']): Key {
  const known = handKeys.get(key.id)
  if (known) return known
  const made = keyOf(key.tonic, modeId)
  handKeys.set(key.id, made)
  return made
}
