import type { Family, Finger, FingerFormId, Position } from '../instrument'
import { diatonicNumber, midiNumber, type Note } from '../pitch'
import { hasNote, keyOf, noteInKey, notesOnLetter, type Key } from './key'
import { patternOf, WIDEST_STEP, type Pattern } from './pattern'

/** One finger at its place. */
export interface HandStop {
  readonly finger: Finger
  readonly note: Note
  /** Above the open string. */
  readonly semitones: number
  readonly form: FingerFormId
  /** False where the scale leaves this note out and the finger rests there. */
  readonly isPlayed: boolean
  /** The open string that sounds the same note, if there is one. */
  readonly openString: number | undefined
}

export type Extension = 'none' | 'back' | 'forward'

/** What a key asks of the hand on one string in one position. */
export interface Hand {
  readonly kind: 'hand'
  readonly stringIndex: number
  readonly position: Position
  readonly frameId: string
  /** Cello: whether 1 drops back, or 2, 3, 4 and the thumb move up. */
  readonly extension: Extension
  /** Semitones above the open string of the first finger's place, whether the key uses it or not. */
  readonly base: number
  /** In order from the nut; a chromatic scale can ask two places of one finger. */
  readonly stops: readonly HandStop[]
  /** Missing where one finger has two places: it slides. */
  readonly pattern: Pattern | undefined
}

/** Why a key asks nothing of the hand there, and the notes it would have wanted. */
export interface NoHand {
  readonly kind: 'none'
  readonly stringIndex: number
  readonly position: Position
  readonly reason:
    /** The first finger would lie at the nut or behind it. */
    | 'open_string'
    /** The notes lie further apart than this hand holds without moving. */
    | 'beyond_frame'
    /** The key has no note under these fingers. */
    | 'no_note'
    /** Past the end of the fingerboard. */
    | 'off_board'
  readonly wanted: readonly Note[]
}

export type HandCell = Hand | NoHand

/** What does not change from cell to cell of one atlas. */
export interface HandContext {
  readonly family: Family
  /** Open strings, lowest first. */
  readonly tuning: readonly Note[]
  readonly openMidis: readonly number[]
  readonly openLetters: readonly number[]
  /** Bass: which of the family's frames the hand is held in. */
  readonly frameIndex: number
  /** Semitones to the end of the fingerboard. */
  readonly lastSemitone: number
}

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

const FINGERS: readonly Finger[] = [1, 2, 3, 4]
/** Semitones of the major and perfect intervals, by letters: a finger's usual places in first position. */
const USUAL = [0, 2, 4, 5, 7, 9, 11]

function none(
  reason: NoHand['reason'],
  stringIndex: number,
  position: Position,
  wanted: readonly Note[],
): NoHand {
  return { kind: 'none', stringIndex, position, reason, wanted }
}

/** Violin and viola: finger f takes the f-th letter of the position, wherever the key puts it. */
function fingerALetter(
  context: HandContext,
  key: Key,
  played: Key,
  stringIndex: number,
  position: Position,
): HandCell {
  const letter = position.letter!
  const open = context.openMidis[stringIndex]!
  const stops: HandStop[] = []
  const semitones: number[] = []
  let isSliding = false
  for (const finger of FINGERS) {
    const number = context.openLetters[stringIndex]! + letter + finger - 1
    const notes = notesOnLetter(played, number)
    if (notes.length > 1) isSliding = true
    for (const n of notes) {
      const above = midiNumber(n) - open
      if (above < 1) {
        // A letter with two notes keeps the one that can be stopped.
        if (notes.length > 1) continue
        return none('open_string', stringIndex, position, [n])
      }
      stops.push(stop(context, key, played, stringIndex, finger, n, above, 'usual'))
      semitones.push(above)
    }
  }
  if (semitones.length === 0) return none('no_note', stringIndex, position, [])
  if (semitones.at(-1)! > context.lastSemitone)
    return none('off_board', stringIndex, position, notesOf(stops))
  const base = semitones[0]!
  const formed = stops.map((s) => ({ ...s, form: formOf(s.finger, s.semitones, base, letter) }))
  const fits = !isSliding && widest(semitones) <= WIDEST_STEP && narrowest(semitones) >= 1
  return {
    kind: 'hand',
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
function formOf(finger: Finger, semitones: number, base: number, letter: number): FingerFormId {
  if (letter === 0 && finger === 1) return 'half'
  const number = letter + finger - 1
  const usual =
    letter === 1
      ? USUAL[number % 7]! + 12 * Math.floor(number / 7)
      : finger === 1
        ? USUAL[letter % 7]! + 12 * Math.floor(letter / 7)
        : base + OFFSETS_AT_REST[finger - 1]!
  return semitones < usual ? 'low' : semitones > usual ? 'high' : 'usual'
}

const OFFSETS_AT_REST = [0, 2, 3, 5]

/** Cello: three letters under 1 and 4 and one of the others; closed where a minor third holds them, else extended. */
function threeLetters(
  context: HandContext,
  key: Key,
  played: Key,
  stringIndex: number,
  position: Position,
): HandCell {
  const open = context.openMidis[stringIndex]!
  const upper = position.firstFingerSemitones.at(-1)!
  const notes =
    key.mode.id === 'chromatic'
      ? [0, 1, 2, 3].map((by) => noteInKey(played, open + upper + by)!)
      : lettersFrom(played, context.openLetters[stringIndex]! + position.letter!)
  const wanted: number[] = []
  for (const n of notes) wanted.push(midiNumber(n) - open)
  if (wanted[0]! < 1) return none('open_string', stringIndex, position, notes)
  const held = heldBy(context.family, wanted, upper)
  if (!held) return none('beyond_frame', stringIndex, position, notes)
  if (wanted.at(-1)! > context.lastSemitone) return none('off_board', stringIndex, position, notes)
  const frame = context.family.frames[held.frameIndex]!
  const fingers: Finger[] = []
  const stops: HandStop[] = []
  for (let i = 0; i < notes.length; i++) {
    const finger = fingerAt(frame.offsets, wanted[i]! - held.base)!
    fingers.push(finger)
    stops.push(
      stop(
        context,
        key,
        played,
        stringIndex,
        finger,
        notes[i]!,
        wanted[i]!,
        formWhen(held.extension, finger),
      ),
    )
  }
  return {
    kind: 'hand',
    stringIndex,
    position,
    frameId: frame.id,
    extension: held.extension,
    base: held.base,
    stops,
    pattern: patternOf(context.family, held.frameIndex, fingers, wanted),
  }
}

/** The key's notes on three letters from `number` on. */
function lettersFrom(key: Key, number: number): Note[] {
  const notes: Note[] = []
  for (let by = 0; by < 3; by++) notes.push(...notesOnLetter(key, number + by))
  return notes
}

/** Back, only 1 leaves its place; forward, all but 1. */
function formWhen(extension: Extension, finger: Finger): FingerFormId {
  if (extension === 'back' && finger === 1) return 'low'
  return extension === 'forward' && finger !== 1 ? 'high' : 'usual'
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
 * The hand that holds these semitones without moving. A closed one if it can: the position's own, or a half step either
 * way. Otherwise extended: 1 drops back where the lowest note lies below the position's own place for it and the others
 * stay; else they move up with the thumb and 1 stays. Common practice, no source.
 */
function heldBy(family: Family, wanted: readonly number[], upper: number): Hold | undefined {
  const lowest = wanted[0]!
  if (wanted.at(-1)! - lowest <= family.frames[CLOSED]!.semitones) {
    if (holds(family, CLOSED, upper, wanted)) return { frameIndex: CLOSED, base: upper, extension: 'none' }
    if (holds(family, CLOSED, lowest, wanted)) return { frameIndex: CLOSED, base: lowest, extension: 'none' }
  }
  if (!holds(family, EXTENDED, lowest, wanted)) return undefined
  return { frameIndex: EXTENDED, base: lowest, extension: lowest < upper ? 'back' : 'forward' }
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

/** Bass: the frame stands on a semitone, and the key uses the fingers that have one of its notes. */
function fingerASemitone(
  context: HandContext,
  key: Key,
  played: Key,
  stringIndex: number,
  position: Position,
): HandCell {
  const frame = context.family.frames[context.frameIndex]!
  const open = context.openMidis[stringIndex]!
  const base = position.firstFingerSemitones[0]!
  const stops: HandStop[] = []
  const fingers: Finger[] = []
  const semitones: number[] = []
  for (const finger of FINGERS) {
    const offset = frame.offsets[finger]
    if (offset === undefined) continue
    const n = noteInKey(played, open + base + offset)
    if (!n) continue
    stops.push(stop(context, key, played, stringIndex, finger, n, base + offset, 'usual'))
    fingers.push(finger)
    semitones.push(base + offset)
  }
  if (stops.length === 0) return none('no_note', stringIndex, position, [])
  if (semitones.at(-1)! > context.lastSemitone)
    return none('off_board', stringIndex, position, notesOf(stops))
  return {
    kind: 'hand',
    stringIndex,
    position,
    frameId: frame.id,
    extension: 'none',
    base,
    stops,
    pattern: patternOf(context.family, context.frameIndex, fingers, semitones),
  }
}

function stop(
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

function notesOf(stops: readonly HandStop[]): Note[] {
  return stops.map((s) => s.note)
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
