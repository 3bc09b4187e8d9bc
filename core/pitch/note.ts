/** The seven natural letters, in the order in which an octave of scientific pitch notation runs. */
export const LETTERS = ['C', 'D', 'E', 'F', 'G', 'A', 'B'] as const
export type Letter = (typeof LETTERS)[number]

/** A spelled note. F♯ and G♭ are different notes: outside equal temperament they lie at different places. */
export interface Note {
  readonly letter: Letter
  /** Sharps are positive, flats negative: F♯ is 1, B♭ is −1. */
  readonly accidental: number
  /** Scientific octave number; middle C is C4. */
  readonly octave: number
}

/** A spelled interval: how many letters and how many semitones it climbs. A major third is 2 letters, 4 semitones. */
export interface Interval {
  readonly steps: number
  readonly semitones: number
}

/** From C up to A, B, C … G, by the code of the letter: every note of an atlas and of a line is asked for its number. */
const SEMITONES_ABOVE_C = [9, 11, 0, 2, 4, 5, 7]
const CODE_OF_A = 'A'.charCodeAt(0)
const FIFTHS_FROM_C: Record<Letter, number> = { F: -1, C: 0, G: 1, D: 2, A: 3, E: 4, B: 5 }
const ACCIDENTALS: Record<string, number> = {
  '': 0,
  '#': 1,
  '♯': 1,
  '##': 2,
  '♯♯': 2,
  b: -1,
  '♭': -1,
  bb: -2,
  '♭♭': -2,
}

/** Reads `F#4`, `F♯4`, `Bb3` or `b♭3`; anything else gives undefined. */
export function parseNote(text: string): Note | undefined {
  const match = /^([A-Ga-g])(#{0,2}|♯{0,2}|b{0,2}|♭{0,2})(-?\d)$/.exec(text.trim())
  if (!match) return undefined
  const [, letter = '', accidental = '', octave = ''] = match
  return {
    letter: letter.toUpperCase() as Letter,
    accidental: ACCIDENTALS[accidental] ?? 0,
    octave: Number(octave),
  }
}

/** A note that is known to be one, as in source code; throws on a spelling that {@link parseNote} does not read. */
export function note(text: string): Note {
  const parsed = parseNote(text)
  if (!parsed) throw new Error(`not a note: ${text}`)
  return parsed
}

/** Notes kept by their names, as the open strings of an instrument are; throws on a name that is none. */
export function notesOf(names: readonly string[]): Note[] {
  return names.map(note)
}

/** `F♯4`, or `F♯` without its octave. */
export function noteName({ letter, accidental, octave }: Note, options: { octave?: boolean } = {}): string {
  const sign = accidental >= 0 ? '♯'.repeat(accidental) : '♭'.repeat(-accidental)
  return `${letter}${sign}${options.octave === false ? '' : octave}`
}

/** MIDI note number: C4 is 60, A4 is 69. Source: MIDI 1.0 Detailed Specification, MIDI Association. */
export function midiNumber({ letter, accidental, octave }: Note): number {
  return 12 * (octave + 1) + SEMITONES_ABOVE_C[letter.charCodeAt(0) - CODE_OF_A]! + accidental
}

/** Letters counted upwards from C0, whatever the accidental. */
export function diatonicNumber({ letter, octave }: Note): number {
  return 7 * octave + LETTERS.indexOf(letter)
}

/** Place on the line of fifths, whatever the octave: … B♭ −2, F −1, C 0, G 1, D 2, A 3 … */
export function fifthsNumber({ letter, accidental }: Note): number {
  return FIFTHS_FROM_C[letter] + 7 * accidental
}

/** The note a spelled interval above `from`: a major third above A is C♯, never D♭. */
export function transpose(from: Note, interval: Interval): Note {
  const number = diatonicNumber(from) + interval.steps
  const letter = LETTERS[((number % 7) + 7) % 7] ?? 'C'
  const natural: Note = { letter, accidental: 0, octave: Math.floor(number / 7) }
  return { ...natural, accidental: midiNumber(from) + interval.semitones - midiNumber(natural) }
}
