import type { Family, Finger, Position } from '../../instrument'
import { midiNumber, type Note } from '../../pitch'
import { noteInKey, notesOnLetter, type Key } from '../../key'
import { formOf, ownPlace } from '../names'
import { patternOf } from '../pattern'
import type { Extension, AtlasCell, PlacementContext, FingerStop } from '../types'
import { FINGERS, none, stop } from '../stops'

/** Cello: three letters under 1 and 4 and one of the others; closed where a minor third holds them, else extended. */
export function threeLetters(
  context: PlacementContext,
  key: Key,
  parent: Key,
  stringIndex: number,
  position: Position,
): AtlasCell {
  const open = context.openMidis[stringIndex]!
  const upper = position.firstFingerSemitones.at(-1)!
  const openLetter = context.openLetters[stringIndex]!
  const notes =
    key.mode.id === 'chromatic'
      ? [0, 1, 2, 3].map((by) => noteInKey(parent, open + upper + by)!)
      : lettersFrom(parent, openLetter + position.letter!)
  if (position.letter === 0 && midiNumber(notes[0]!) <= open) {
    // In flat keys the letter of first position lies in half position: B♭ C D♭ on the A string.
    const next = lettersFrom(parent, openLetter + 1)
    const isHalf = next.every((n) => {
      const offset = midiNumber(n) - open - upper
      return fingerAt(context.family.frames[CLOSED]!.offsets, offset) !== undefined
    })
    if (!isHalf) return none('open_string', stringIndex, position, notes)
    return held(context, key, parent, stringIndex, position, next)
  }
  return held(context, key, parent, stringIndex, position, notes)
}

function held(
  context: PlacementContext,
  key: Key,
  parent: Key,
  stringIndex: number,
  position: Position,
  notes: readonly Note[],
): AtlasCell {
  const open = context.openMidis[stringIndex]!
  const wanted: number[] = []
  for (const n of notes) wanted.push(midiNumber(n) - open)
  if (wanted[0]! < 1) return none('open_string', stringIndex, position, notes)
  const held = heldBy(context.family, wanted, position)
  if (!held) return none('beyond_frame', stringIndex, position, notes)
  if (wanted.at(-1)! > context.lastSemitone) return none('off_board', stringIndex, position, notes)
  const frame = context.family.frames[held.frameIndex]!
  const own = ownPlace(position)
  const fingers: Finger[] = []
  const stops: FingerStop[] = []
  for (let i = 0; i < notes.length; i++) {
    const finger = fingerAt(frame.offsets, wanted[i]! - held.base)!
    fingers.push(finger)
    stops.push(
      stop(
        context,
        key,
        parent,
        stringIndex,
        finger,
        notes[i]!,
        wanted[i]!,
        formOf(context.family.frames[CLOSED]!.offsets, position, finger, wanted[i]!, own),
      ),
    )
  }
  return {
    kind: 'placement',
    stringIndex,
    position,
    frameId: frame.id,
    extension: held.extension,
    base: held.base,
    stops,
    pattern: patternOf(context.family, held.frameIndex, fingers, wanted),
  }
}

/** An atlas asks for the same letters of a key in several positions and on several strings. */
const made = new WeakMap<Key, Record<number, readonly Note[]>>()

/** The key's notes on three letters from `number` on. */
function lettersFrom(key: Key, number: number): readonly Note[] {
  let own = made.get(key)
  if (!own) made.set(key, (own = {}))
  return (own[number] ??= [0, 1, 2].flatMap((by) => notesOnLetter(key, number + by)))
}

interface Hold {
  readonly frameIndex: number
  readonly base: number
  readonly extension: Extension
}

/** The cello's frames, closed before extended. */
const CLOSED = 0
const EXTENDED = 1

/**
 * The hand that holds these semitones without moving. A closed one if it can: the position's upper place, or a half step
 * lower. Otherwise extended: forward where 1 stays at the position's own place, back where it lies below. Common practice,
 * no source.
 */
function heldBy(family: Family, wanted: readonly number[], position: Position): Hold | undefined {
  const upper = position.firstFingerSemitones.at(-1)!
  const lowest = wanted[0]!
  if (wanted.at(-1)! - lowest <= family.frames[CLOSED]!.semitones) {
    if (holds(family, CLOSED, upper, wanted)) return { frameIndex: CLOSED, base: upper, extension: 'none' }
    if (holds(family, CLOSED, lowest, wanted)) return { frameIndex: CLOSED, base: lowest, extension: 'none' }
  }
  if (!holds(family, EXTENDED, lowest, wanted)) return undefined
  return {
    frameIndex: EXTENDED,
    base: lowest,
    extension: lowest < ownPlace(position) ? 'back' : 'forward',
  }
}

function holds(family: Family, frameIndex: number, base: number, wanted: readonly number[]): boolean {
  const { offsets } = family.frames[frameIndex]!
  for (const semitones of wanted) if (fingerAt(offsets, semitones - base) === undefined) return false
  return true
}

function fingerAt(offsets: Readonly<Partial<Record<Finger, number>>>, offset: number): Finger | undefined {
  for (const finger of FINGERS) if (offsets[finger] === offset) return finger
  return undefined
}
