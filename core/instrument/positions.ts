import type { Position } from './family'

const NAMES = [
  'half',
  'first',
  'second',
  'third',
  'fourth',
  'fifth',
  'sixth',
  'seventh',
  'eighth',
  'ninth',
  'tenth',
  'eleventh',
  'twelfth',
  'thirteenth',
] as const

/** The lower and the upper place of the first finger on each letter of an octave. */
const PLACES = [[1], [1, 2], [3, 4], [5, 6], [7], [8, 9], [10, 11]] as const

/** Positions named by the letter under the first finger: half, first, second … Common practice, no source. */
export const LETTER_POSITIONS: readonly Position[] = NAMES.map((id, letter) => ({
  id,
  letter,
  firstFingerSemitones:
    letter < 7 ? PLACES[letter]! : letter === 7 ? [12] : PLACES[letter - 7]!.map((s) => s + 12),
}))

/** Half, first, then a position on every semitone up to the octave. Common practice, no source. */
export const SEMITONE_POSITIONS: readonly Position[] = Array.from({ length: 12 }, (_, index) => ({
  id: index < 2 ? NAMES[index]! : `semitone_${index + 1}`,
  firstFingerSemitones: [index + 1],
}))
