import type { Family, Position } from '../instrument'
import { diatonicNumber, midiNumber, type Note } from '../pitch'
import { keyOf, type Key } from '../key'
import { techniqueOf, type AtlasCell, type PlacementContext } from '../technique'

export interface PlacementOptions {
  /** Id of one of the family's frames; the first one without it. */
  readonly frameId?: string | undefined
}

/** Prepares the strings of one instrument; throws on a frame that the family does not have. */
export function placementContext(
  family: Family,
  tuning: readonly Note[],
  options: PlacementOptions = {},
): PlacementContext {
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
export function placementAt(
  context: PlacementContext,
  key: Key,
  stringIndex: number,
  position: Position,
): AtlasCell {
  const parent = key.mode.parent === undefined ? key : parentKey(key, key.mode.parent)
  return techniqueOf(context.family.id).handFor(context, key, parent, stringIndex, position)
}

const parentKeys = new Map<string, Key>()

function parentKey(key: Key, modeId: Key['mode']['id']): Key {
  const known = parentKeys.get(key.id)
  if (known) return known
  const made = keyOf(key.tonic, modeId)
  parentKeys.set(key.id, made)
  return made
}
