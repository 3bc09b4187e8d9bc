import { LETTERS, fifthsNumber, midiNumber, noteName, parseNote, transpose, type Note } from '../pitch'
import { MODE_IDS, MODES, type Mode, type ModeId } from './mode'

/** A tonic and a mode, with the spelling of every note. */
export interface Key {
  /** `D:major`, `F♯:harmonic_minor`. */
  readonly id: string
  /** Its octave says nothing. */
  readonly tonic: Note
  readonly mode: Mode
  /** Accidentals of each letter, C first: none where the letter is left out, two in a chromatic scale. */
  readonly accidentals: readonly (readonly number[])[]
  /** Sharps of the signature, or flats as a negative number; undefined where no signature stands for it. */
  readonly signature: number | undefined
}

/** No signature has more than seven signs. */
const MOST_SIGNS = 7

/** The key of `mode` on a tonic, whatever the tonic's octave. */
export function keyOf(tonic: Note, modeId: ModeId): Key {
  const mode = MODES[modeId]
  const accidentals: number[][] = LETTERS.map(() => [])
  for (const degree of mode.degrees) {
    const { letter, accidental } = transpose(tonic, degree)
    accidentals[LETTERS.indexOf(letter)]!.push(accidental)
  }
  const signs = mode.signature === undefined ? undefined : fifthsNumber(tonic) + mode.signature
  return {
    id: `${noteName(tonic, { octave: false })}:${modeId}`,
    tonic: { ...tonic, octave: 4 },
    mode,
    accidentals,
    signature: signs !== undefined && Math.abs(signs) <= MOST_SIGNS ? signs : undefined,
  }
}

export type KeyFault =
  | { readonly code: 'key_tonic'; readonly text: string }
  | { readonly code: 'key_mode'; readonly text: string }
export type ParsedKey =
  | { readonly ok: true; readonly key: Key }
  | { readonly ok: false; readonly fault: KeyFault }

/** A map, since people type anything: an object has a `constructor`. */
const WRITTEN_MODES: ReadonlyMap<string, ModeId> = new Map([
  ['', 'major'],
  ['maj', 'major'],
  ['m', 'natural_minor'],
  ['min', 'natural_minor'],
  ['minor', 'natural_minor'],
  ['aeolian', 'natural_minor'],
  ['ionian', 'major'],
  ['pentatonic', 'major_pentatonic'],
])

/** Reads `D`, `D major`, `f# harmonic minor`, `E flat`, `C sharp minor`, `Dm`, `Bb dorian`, or an id as in `F♯:dorian`. Without a mode it is major. */
export function parseKey(text: string): ParsedKey {
  const plain = text.replace(
    /^(\s*[A-G])[\s-]*(sharp|flat)(?![a-z])/i,
    (_, letter: string, sign: string) => `${letter}${sign.toLowerCase() === 'sharp' ? '♯' : '♭'}`,
  )
  const match = /^\s*([A-G](?:#{1,2}|♯{1,2}|b{1,2}|♭{1,2})?)(?:[\s:-]+(.*)|(m|min|maj))?$/i.exec(plain)
  const tonic = match && parseNote(`${match[1] ?? ''}4`)
  if (!tonic) return { ok: false, fault: { code: 'key_tonic', text: text.trim() } }
  // A capital M is major, as musicians write chords.
  const written = (match[2] ?? (match[3] === 'M' ? '' : match[3]) ?? '')
    .trim()
    .toLowerCase()
    .replace(/[\s_]+/g, '_')
  const modeId = MODE_IDS.find((id) => id === written) ?? WRITTEN_MODES.get(written)
  if (!modeId) return { ok: false, fault: { code: 'key_mode', text: (match[2] ?? '').trim() } }
  return { ok: true, key: keyOf(tonic, modeId) }
}

/** The notes of the scale over one octave from its tonic, going up, without the octave. */
export function scaleOf(key: Key): Note[] {
  return key.mode.degrees.map((degree) => transpose(key.tonic, degree))
}

/** The key's note with this MIDI number, as the key spells it; undefined where the key does not have it. */
export function noteInKey(key: Key, midi: number): Note | undefined {
  const { atNumber } = spellingOf(key)
  const known = atNumber[midi]
  if (known !== undefined) return known ?? undefined
  const found = soughtInKey(key, midi)
  atNumber[midi] = found ?? null
  return found
}

function soughtInKey(key: Key, midi: number): Note | undefined {
  for (let letter = 0; letter < 7; letter++) {
    for (const accidental of key.accidentals[letter]!) {
      const octave = (midi - SEMITONES_ABOVE_C[letter]! - accidental) / 12 - 1
      if (Number.isInteger(octave)) return { letter: LETTERS[letter]!, accidental, octave }
    }
  }
  return undefined
}

const SEMITONES_ABOVE_C = LETTERS.map((letter) => midiNumber({ letter, accidental: 0, octave: -1 }))

/** What a key has on its letters, and at a MIDI number; null where it has none. */
interface Spelling {
  readonly onLetter: Record<number, readonly Note[]>
  readonly atNumber: Record<number, Note | null>
}

/** Keys are asked for their notes a hundred times by an atlas: each note is spelled once. */
const spelled = new WeakMap<Key, Spelling>()

function spellingOf(key: Key): Spelling {
  let own = spelled.get(key)
  if (!own) spelled.set(key, (own = { onLetter: {}, atNumber: {} }))
  return own
}

/** The key's notes on one letter of one octave, lowest first; `number` counted as `diatonicNumber` does. */
export function notesOnLetter(key: Key, number: number): readonly Note[] {
  const { onLetter } = spellingOf(key)
  const known = onLetter[number]
  if (known) return known
  const index = ((number % 7) + 7) % 7
  const octave = Math.floor(number / 7)
  const notes = key.accidentals[index]!.map((accidental) => ({ letter: LETTERS[index]!, accidental, octave }))
  onLetter[number] = notes
  return notes
}

/** Whether the key has this note, spelled so. */
export function hasNote(key: Key, n: Note): boolean {
  return key.accidentals[LETTERS.indexOf(n.letter)]!.includes(n.accidental)
}

/** The keys of a mode that have a signature of at most seven signs, from seven flats up the line of fifths; all of a chromatic scale are one. */
export function keysOf(modeId: ModeId): Key[] {
  const { signature } = MODES[modeId]
  if (signature === undefined) return [keyOf(onLineOfFifths(0), modeId)]
  return Array.from({ length: 2 * MOST_SIGNS + 1 }, (_, index) =>
    keyOf(onLineOfFifths(index - MOST_SIGNS - signature), modeId),
  )
}

/** The note a number of fifths above C, in the octave of middle C. */
function onLineOfFifths(fifths: number): Note {
  const letter = LETTERS[(((4 * fifths) % 7) + 7) % 7]!
  const natural: Note = { letter, accidental: 0, octave: 4 }
  return { ...natural, accidental: Math.round((fifths - fifthsNumber(natural)) / 7) }
}
