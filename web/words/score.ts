import { familyOf, type Note, type Score, type ScoreNote } from '#core'
import { fingerWords } from './fingers'
import { noteLabel } from './notes'
import { positionName } from './positions'

const HARMONICS = { 2: 'half', 3: 'a third', 4: 'a quarter' } as const

const NUMERALS = ['', 'I', 'II', 'III', 'IV', 'V', 'VI']

/**
 * How a string is marked over its note: `IV`, counted from the highest. Of a bass, whose positions have numerals, `sul D`: the two
 * never look alike. Common practice, no source.
 */
export function stringMark({ family, tuning }: Score, string: number): string {
  const open = tuning[tuning.length - string]
  const hasNumeralPositions = familyOf(family).positions.some(({ letter }) => letter === undefined)
  return hasNumeralPositions && open
    ? `sul ${noteLabel(open, { octave: false })}`
    : (NUMERALS[string] ?? String(string))
}

/** A note of a staff read aloud: `F♯4, finger 2, third position, shift`. */
export function scoreNoteWords(note: ScoreNote, tuning?: readonly Note[]): string {
  const open = note.string !== undefined && tuning ? tuning[tuning.length - note.string] : undefined
  return [
    noteLabel(note.sounding),
    ...(note.second ? [`with ${noteLabel(note.second.sounding)} by ${fingerWords(note.second.finger)}`] : []),
    note.isExtended ? `${fingerWords(note.finger)} extended` : fingerWords(note.finger),
    ...(open ? [`${noteLabel(open, { octave: false })} string`] : []),
    ...(note.isShift ? ['shift'] : []),
    ...(note.position ? [`${note.place ? `${note.place} ` : ''}${positionName(note.position)}`] : []),
    ...(note.harmonic ? [`harmonic at ${HARMONICS[note.harmonic]} of the string`] : []),
  ].join(', ')
}
