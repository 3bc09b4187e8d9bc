import { noteName, parseNote, type Letter, type Note } from '#core'
import { shown } from './shown'

/**
 * Names of notes as a studio writes them. German: B is H, B flat is B, sharps end in -is and flats in -es, E flat and A flat
 * in -s. Fixed do: Do, Re, Mi, Fa, Sol, La, Si, with the signs of letters. Any primer of either.
 */
const FIXED_DO: Record<Letter, string> = { C: 'Do', D: 'Re', E: 'Mi', F: 'Fa', G: 'Sol', A: 'La', B: 'Si' }

function german({ letter, accidental }: Note): string {
  if (letter === 'B') {
    if (accidental === -1) return 'B'
    return accidental >= 0 ? `H${'is'.repeat(accidental)}` : `H${'es'.repeat(-accidental)}`
  }
  if (accidental >= 0) return letter + 'is'.repeat(accidental)
  const isVowel = letter === 'A' || letter === 'E'
  // E flat is Es, A flat As; twice flat Eses and Asas.
  if (letter === 'A') return 'As'.concat('as'.repeat(-accidental - 1))
  return (isVowel ? `${letter}s` : `${letter}es`).concat('es'.repeat(-accidental - 1))
}

/** `F♯4` as letters, `Fis4` in German, `Fa♯4` in fixed do; without its octave where it is not wanted. */
export function noteLabel(note: Note, options: { octave?: boolean } = {}): string {
  const octave = options.octave === false ? '' : String(note.octave)
  switch (shown.noteNames) {
    case 'german':
      return german(note) + octave
    case 'fixed_do': {
      const letter = noteName({ ...note, letter: 'C' }, { octave: false }).slice(1)
      return FIXED_DO[note.letter] + letter + octave
    }
    case 'letters':
      return noteName(note, options)
  }
}

/** The same of a note kept by its name, with or without an octave: `B♭` → `B`, `A4` → `La`. */
export function labelOfName(name: string, options: { octave?: boolean } = { octave: false }): string {
  const read = parseNote(name) ?? parseNote(`${name}4`)
  return read ? noteLabel(read, options) : name
}
