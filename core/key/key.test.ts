import { Scale } from 'tonal'
import { describe, expect, it } from 'vitest'
import { LETTERS, midiNumber, note, noteName } from '../pitch'
import {
  keyOf,
  keysOf,
  MODE_IDS,
  MODES,
  noteInKey,
  notesOnLetter,
  parseKey,
  scaleOf,
  type ModeId,
} from './index'

/** What the reference library calls the same scales. */
const TONAL: Record<ModeId, string> = {
  major: 'major',
  natural_minor: 'minor',
  harmonic_minor: 'harmonic minor',
  melodic_minor: 'melodic minor',
  dorian: 'dorian',
  phrygian: 'phrygian',
  lydian: 'lydian',
  mixolydian: 'mixolydian',
  locrian: 'locrian',
  major_pentatonic: 'major pentatonic',
  minor_pentatonic: 'minor pentatonic',
  chromatic: 'chromatic',
}
const TONICS = LETTERS.flatMap((letter) =>
  ['♭♭', '♭', '', '♯', '♯♯'].map((sign) => note(`${letter}${sign}4`)),
)

const plain = (name: string) => name.replaceAll('♯', '#').replaceAll('♭', 'b')

describe('every key of every mode', () => {
  it('is spelled as tonal 6.2 spells it, double sharps and flats included', () => {
    let compared = 0
    for (const modeId of MODE_IDS)
      for (const tonic of TONICS) {
        const name = plain(noteName(tonic, { octave: false }))
        const theirs = Scale.get(`${name} ${TONAL[modeId]}`).notes
        const ours = scaleOf(keyOf(tonic, modeId)).map((n) => plain(noteName(n, { octave: false })))
        expect(ours, `${name} ${modeId}`).toEqual(theirs)
        compared++
      }
    expect(compared).toBe(12 * 35)
  })

  it('finds each of its notes again by pitch and by letter, in every octave', () => {
    const missed: string[] = []
    for (const modeId of MODE_IDS)
      for (const key of keysOf(modeId))
        for (const n of scaleOf(key)) {
          const high = { ...n, octave: n.octave + 2 }
          const letters = notesOnLetter(key, 7 * high.octave + LETTERS.indexOf(n.letter))
          const found = [noteInKey(key, midiNumber(high)), letters.find((l) => l.accidental === n.accidental)]
          if (found.some((f) => !f || noteName(f) !== noteName(high)))
            missed.push(`${key.id} ${noteName(high)}`)
        }
    expect(missed).toEqual([])
  })

  it('has the notes of its scale and no others', () => {
    for (const modeId of MODE_IDS) {
      const key = keyOf(note('F♯4'), modeId)
      const found = Array.from({ length: 12 }, (_, i) => noteInKey(key, 60 + i)).filter(Boolean)
      expect(found).toHaveLength(MODES[modeId].degrees.length)
    }
  })
})

it('has the fifteen signatures of the circle of fifths', () => {
  expect(
    keysOf('major')
      .map((k) => noteName(k.tonic, { octave: false }))
      .join(' '),
  ).toBe('C♭ G♭ D♭ A♭ E♭ B♭ F C G D A E B F♯ C♯')
  expect(
    keysOf('natural_minor')
      .map((k) => noteName(k.tonic, { octave: false }))
      .join(' '),
  ).toBe('A♭ E♭ B♭ F C G D A E B F♯ C♯ G♯ D♯ A♯')
  expect(keysOf('dorian').find((k) => k.signature === 0)?.id).toBe('D:dorian')
  expect(keyOf(note('G♯4'), 'major').signature).toBeUndefined()
})

describe('a key as somebody types it', () => {
  it.each([
    ['D', 'D:major'],
    ['d major', 'D:major'],
    ['f# harmonic minor', 'F♯:harmonic_minor'],
    ['Bb dorian', 'B♭:dorian'],
    ['A m', 'A:natural_minor'],
    ['F♯:natural_minor', 'F♯:natural_minor'],
    ['G# major', 'G♯:major'],
    ['E flat', 'E♭:major'],
    ['e-flat minor', 'E♭:natural_minor'],
    ['Eb', 'E♭:major'],
    ['F sharp', 'F♯:major'],
    ['C Sharp harmonic minor', 'C♯:harmonic_minor'],
    ['Bbm', 'B♭:natural_minor'],
    ['DM', 'D:major'],
    ['f-sharp-minor', 'F♯:natural_minor'],
  ])('reads %s', (text, id) => {
    const parsed = parseKey(text)
    expect(parsed.ok && parsed.key.id).toBe(id)
  })

  it('says what it cannot read', () => {
    expect(parseKey('H major')).toEqual({ ok: false, fault: { code: 'key_tonic', text: 'H major' } })
    // Found by npm run fuzz: every object has one.
    expect(parseKey('D constructor')).toMatchObject({ ok: false, fault: { code: 'key_mode' } })
    expect(parseKey('D majestic')).toEqual({ ok: false, fault: { code: 'key_mode', text: 'majestic' } })
    expect(parseKey('')).toMatchObject({ ok: false })
  })

  it('spells G♯ major with a double sharp, as theory has it', () => {
    const parsed = parseKey('G# major')
    expect(
      parsed.ok &&
        scaleOf(parsed.key)
          .map((n) => noteName(n, { octave: false }))
          .join(' '),
    ).toBe('G♯ A♯ B♯ C♯ D♯ E♯ F♯♯')
  })
})
