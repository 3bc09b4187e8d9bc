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

const LETTER_OF = new Map(
  Object.entries(FIXED_DO).map(([letter, syllable]) => [syllable.toLowerCase(), letter]),
)

/** A note that is typed as the studio writes them, by the letters that are read everywhere: `Fa#4` → `F#4`. */
export function asLetters(word: string): string {
  if (shown.noteNames === 'letters') return word
  if (shown.noteNames === 'fixed_do') {
    const [, syllable = '', rest = ''] =
      /^(do|re|mi|fa|sol|la|si)(.*)$/i.exec(word.replace(/^ré/i, 're')) ?? []
    const letter = LETTER_OF.get(syllable.toLowerCase())
    return letter === undefined ? word : letter + rest
  }
  const [, name = '', flat = '', sharp = '', octave = ''] =
    /^([a-h])(?:((?:[ea]?s)+)|((?:is)+))?(-?\d*)$/i.exec(word) ?? []
  if (name === '') return word
  const isB = name.toUpperCase() === 'B' && flat + sharp === ''
  const signs = isB ? 'b' : 'b'.repeat(flat.match(/s/gi)?.length ?? 0) + '#'.repeat(sharp.length / 2)
  return (name.toUpperCase() === 'H' ? 'B' : name) + signs + octave
}

/** The same of a note kept by its name, with or without an octave: `B♭` → `B`, `A4` → `La`. */
export function labelOfName(name: string, options: { octave?: boolean } = { octave: false }): string {
  const read = parseNote(name) ?? parseNote(`${name}4`)
  return read ? noteLabel(read, options) : name
}
