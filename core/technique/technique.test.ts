import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { keysOf, MODE_IDS, parseKey } from '../key'
import { atlasOf, placementAt, placementContext } from '../pattern'
import { note, noteName } from '../pitch'
import { clefsFor, ledgerLines, ownPlace, techniqueOf, writtenNote, type AtlasCell } from './index'

const key = (text: string) => {
  const parsed = parseKey(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.key
}
const cello = familyOf('cello')
const cells = (keyText: string, positionId: string): AtlasCell[] => {
  const context = placementContext(cello, cello.tuning)
  const position = cello.positions.find((p) => p.id === positionId)!
  return cello.tuning.map((_, string) => placementAt(context, key(keyText), string, position))
}
const extensions = (keyText: string, positionId: string) =>
  cells(keyText, positionId).map((c) => (c.kind === 'placement' ? c.extension : c.reason))

describe('a cellist’s hand (common practice, no source)', () => {
  it('opens forward where 1 stays at its position’s note, and back where 1 alone is low', () => {
    // C major in third position: 1 on F, C, G and D, a fourth above each open string.
    expect(extensions('C', 'third')).toEqual(['forward', 'forward', 'forward', 'none'])
    expect(extensions('D', 'first').slice(0, 2)).toEqual(['forward', 'forward'])
    expect(extensions('E♭', 'first')[2]).toBe('back')
    expect(ownPlace(cello.positions[3]!)).toBe(5)
  })

  it('lies in half position in flat keys: A♭ on the A string is 1 B♭, 3 C, 4 D♭', () => {
    const [, , , a] = cells('A♭', 'half')
    expect(
      a?.kind === 'placement' && a.stops.map((s) => s.finger + noteName(s.note, { octave: false })).join(' '),
    ).toBe('1B♭ 3C 4D♭')
    expect(a).toMatchObject({ frameId: 'closed', base: 1 })
    // The same hand under the name of first position says where it lies.
    expect(cells('A♭', 'first')[3]).toMatchObject({ base: 1, position: { id: 'first' } })
    // Where it needs first position there is none.
    expect(cells('C', 'half')[3]).toMatchObject({ kind: 'none', reason: 'open_string' })
  })
})

describe('the names of fingers', () => {
  it.each(FAMILY_IDS)(
    'of the %s mean one thing: a finger at a place of a position is low, usual or high in every key',
    (id) => {
      const family = familyOf(id)
      const forms = new Map<string, Set<string>>()
      for (const mode of MODE_IDS)
        for (const cell of atlasOf(family, family.tuning, keysOf(mode), family.positions).flat(2)) {
          if (cell.kind === 'none') continue
          for (const { finger, semitones, form } of cell.stops) {
            const place = `${cell.position.id} ${finger} ${semitones}`
            forms.set(place, (forms.get(place) ?? new Set()).add(form))
          }
        }
      expect([...forms].filter(([, names]) => names.size > 1)).toEqual([])
      expect(forms.size).toBeGreaterThan(30)
    },
  )

  it('are in first position those of the tapes', () => {
    for (const id of FAMILY_IDS) {
      const family = familyOf(id)
      const [first] = family.positions.filter((p) => p.id === 'first')
      const context = placementContext(family, family.tuning)
      for (const text of ['C', 'D', 'E♭', 'A', 'B♭', 'E'])
        for (let string = 0; string < 4; string++) {
          const cell = placementAt(context, key(text), string, first!)
          if (cell.kind === 'none') continue
          for (const { finger, semitones, form } of cell.stops) {
            const tape = family.forms.find((f) => f.finger === finger && f.interval.semitones === semitones)
            if (tape && tape.form !== 'half') expect(form, `${id} ${text} ${finger}`).toBe(tape.form)
          }
        }
    }
  })
})

describe('clefs (common practice, no source)', () => {
  const read = (id: FamilyId, names: string) => {
    const { clefs, writtenOctavesUp } = techniqueOf(id)
    const written = names.split(' ').map((name) => writtenNote(note(name), writtenOctavesUp))
    return { written, readings: clefsFor(clefs, written) }
  }
  const clefsOf = (id: FamilyId, names: string) => read(id, names).readings.map(({ clef }) => clef)

  it('are each family’s own while its notes lie on it, and a bass is written an octave higher', () => {
    expect(clefsOf('violin', 'G3 D4 G5')).toEqual(['treble', 'treble', 'treble'])
    expect(clefsOf('viola', 'C3 G3 D4 A4')).toEqual(['alto', 'alto', 'alto', 'alto'])
    expect(clefsOf('cello', 'C2 G2 D3 A3')).toEqual(['bass', 'bass', 'bass', 'bass'])
    expect(noteName(writtenNote(note('E1'), techniqueOf('bass').writtenOctavesUp))).toBe('E2')
  })

  it('change to tenor and treble where a cello stays high, once, and not for a note or two', () => {
    const climb = 'D4 E4 F♯4 G4 A4 B4 C♯5 D5 C♯5 B4 A4 G4 F♯4 E4'
    expect(new Set(clefsOf('cello', climb))).toEqual(new Set(['tenor']))
    expect(clefsOf('cello', 'G3 A3 B3 D4 B3 A3 G3')).toEqual(Array<string>(7).fill('bass'))
    expect(clefsOf('cello', 'A4 B4 C♯5 D5 E5 F♯5 G5 A5 B5 C6 D6 E6').at(-1)).toBe('treble')
    expect(clefsOf('viola', 'A4 B4 C5 D5 E5 F5 G5 A5 G5 F5').at(-1)).toBe('treble')
  })

  it('begin on the family’s own one while the line begins on it', () => {
    // B♭ of a bass, two octaves: written from B♭2 to B♭4.
    const line = 'B♭1 C2 D2 E♭2 F2 G2 A2 B♭2 C3 D3 E♭3 F3 G3 A3 B♭3'
    expect(clefsOf('bass', line)[0]).toBe('bass')
    expect(clefsOf('cello', 'C2 E2 G2 C3 E3 G3 C4 E4 G4 C5')[0]).toBe('bass')
  })

  it('leave no note with more than four ledger lines: what lies higher is read an octave lower', () => {
    for (const id of FAMILY_IDS) {
      const { tuning } = familyOf(id)
      const from = tuning[0]!.octave
      const names = Array.from({ length: 5 }, (_, o) =>
        'CDEFGAB'.split('').map((l) => `${l}${from + o}`),
      ).flat()
      const low = names.indexOf(noteName(tuning[0]!))
      const { written, readings } = read(id, names.slice(low, low + 29).join(' '))
      written.forEach((n, i) => expect(ledgerLines(n, readings[i]!), `${id} ${noteName(n)}`).toBeLessThan(5))
    }
    expect(read('violin', 'A6 B6 C7 D7 E7 D7 C7 B6').readings.some(({ isOttava }) => isOttava)).toBe(true)
  })

  it('never change under a beam', () => {
    const { clefs } = techniqueOf('cello')
    const climb = 'C3 D3 E3 F3 G3 A3 B3 C4 D4 E4 F4 G4 A4 B4 C5 D5 E5 F5 G5 A5 B5 C6 B5 A5 G5 F5 E5 D5 C5'
    for (const shift of [0, 1, 2, 3]) {
      const written = climb.split(' ').slice(shift).map(note)
      for (const beamed of [2, 4]) {
        const readings = clefsFor(clefs, written, beamed)
        const changes = readings.flatMap(({ clef }, i) =>
          i > 0 && clef !== readings[i - 1]!.clef ? [i] : [],
        )
        expect(changes.length).toBeGreaterThan(0)
        expect(changes.filter((i) => i % beamed !== 0)).toEqual([])
      }
    }
  })

  it('count ledger lines as they are drawn: middle C one under the treble, A5 one above it', () => {
    const treble = { clef: 'treble', isOttava: false } as const
    expect(['C4', 'D4', 'B3', 'A3', 'G5', 'A5', 'C6'].map((n) => ledgerLines(note(n), treble))).toEqual([
      1, 0, 1, 2, 0, 1, 2,
    ])
  })
})
