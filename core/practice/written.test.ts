import { describe, expect, it } from 'vitest'
import fc from 'fast-check'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { placementContext } from '../pattern'
import { midiNumber, note, noteName } from '../pitch'
import { fingerWritten, parseWritten, practiceNotes, writtenFor, writtenText } from './index'
import { ownExercise } from './testing'

const contextOf = (id: FamilyId) => placementContext(familyOf(id), familyOf(id).tuning)
const lowestOf = (id: FamilyId) => familyOf(id).tuning[0]!
function read(text: string, family: FamilyId = 'violin') {
  const written = parseWritten(text, lowestOf(family))
  if (!written.ok) throw new Error(written.fault.code)
  return written.notes
}
const names = (text: string, family?: FamilyId) => read(text, family).map((one) => noteName(one.note))

describe('a written line', () => {
  it('is read as a teacher writes it: letters, signs, octaves, fingers, and bars', () => {
    expect(names('D4 E F# G | A, B♭ c#5 Bbb4')).toEqual(['D4', 'E4', 'F♯4', 'G4', 'A4', 'B♭4', 'C♯5', 'B♭♭4'])
    expect(read('A4/0 B/1 D/t').map(({ finger }) => finger)).toEqual([0, 1, 5])
    expect(read('   ')).toEqual([])
  })

  it('goes to the nearest note of a name, a fourth at most, and begins at the lowest that there is', () => {
    // As in relative octaves of engraving: by letters, whatever the signs (LilyPond Notation Reference, “Relative octave entry”).
    expect(names('C4 F C G3 C F# B Fb')).toEqual(['C4', 'F4', 'C4', 'G3', 'C4', 'F♯4', 'B4', 'F♭4'])
    expect(names('D E')).toEqual(['D4', 'E4'])
    expect(names('G')).toEqual(['G3'])
    expect(names('D', 'bass')).toEqual(['D2'])
    expect(names('E', 'bass')).toEqual(['E1'])
  })

  it('says at which letter it is wrong', () => {
    const faultOf = (text: string) => {
      const written = parseWritten(text, lowestOf('violin'))
      return written.ok ? undefined : written.fault
    }
    expect(faultOf('D4 E H F')).toEqual({ code: 'not_a_note', text: 'H', at: 5, length: 1 })
    expect(faultOf('D4  E4/5')).toEqual({ code: 'not_a_finger', text: '5', at: 6, length: 2 })
    expect(faultOf('A/1/2')).toMatchObject({ code: 'not_a_finger', at: 1, length: 4 })
    expect(faultOf('/2')).toMatchObject({ code: 'not_a_note', at: 0 })
    expect(faultOf('D '.repeat(65))).toMatchObject({ code: 'too_long', most: 64, at: 128 })
    const onViolin = (text: string) => fingerWritten(contextOf('violin'), read(text))
    expect(onViolin('A4 F3 A')).toEqual({
      ok: false,
      fault: { code: 'too_low', note: 'F3', at: 3, length: 2 },
    })
    expect(onViolin('A4 A9')).toMatchObject({ fault: { code: 'too_high', at: 3 } })
    // No first finger plays an open string’s note in tune with it and below: G3 is open alone.
    expect(onViolin('D4 G3/3')).toEqual({
      ok: false,
      fault: { code: 'no_finger', note: 'G3', isAsked: true, at: 3, length: 4 },
    })
  })

  it('is the same when it is written out and read again', () => {
    const aNote = fc.tuple(
      fc.constantFrom(...'CDEFGAB'),
      fc.constantFrom('', '♯', '♭', '♯♯', '♭♭'),
      fc.nat(8),
    )
    const aLine = fc.array(
      fc.tuple(aNote, fc.option(fc.constantFrom(0, 1, 2, 3, 4, 5), { nil: undefined })),
      {
        maxLength: 64,
      },
    )
    fc.assert(
      fc.property(aLine, (line) => {
        const notes = line.map(([parts, finger]) => ({
          note: note(parts.join('')),
          finger: finger as 0 | undefined,
        }))
        expect(read(writtenText(notes)).map(({ note: n, finger }) => ({ note: n, finger }))).toEqual(notes)
      }),
      { seed: 42, numRuns: 200 },
    )
  })
})

describe('a written line on an instrument', () => {
  it('keeps the fingers that are written and finds the others round them', () => {
    const made = fingerWritten(contextOf('violin'), read('A4/4 B C#5 D E'))
    expect(made.ok && made.notes.map(({ stringIndex, finger }) => `${'GDAE'[stringIndex]}${finger}`)).toEqual(
      ['D4', 'A1', 'A2', 'A3', 'E0'],
    )
  })

  it('lies for another instrument in the octave in which a class plays it together, in its own fingers', () => {
    const line = 'D4/0 E/1 F#/2 G/3 A/4'
    const played = (id: FamilyId) =>
      writtenFor(contextOf(id), line, lowestOf('violin'), 'violin')!.map(
        ({ note: n, finger }) => `${noteName(n)} ${finger}`,
      )
    expect(played('violin')).toEqual(['D4 0', 'E4 1', 'F♯4 2', 'G4 3', 'A4 4'])
    expect(played('viola')).toEqual(['D4 0', 'E4 1', 'F♯4 2', 'G4 3', 'A4 0'])
    expect(played('cello')).toEqual(['D3 0', 'E3 1', 'F♯3 3', 'G3 4', 'A3 0'])
    expect(played('bass')).toEqual(['D2 0', 'E2 1', 'F♯2 4', 'G2 0', 'A2 1'])
    for (const id of FAMILY_IDS) {
      const pitches = writtenFor(contextOf(id), line, lowestOf('violin'), 'violin')!.map(
        (n) => midiNumber(n.note) % 12,
      )
      expect(pitches).toEqual([2, 4, 6, 7, 9])
    }
    // Where it is written for, nothing is moved: other strings have other fingers, or none.
    const viola = placementContext(familyOf('violin'), familyOf('viola').tuning)
    const low = (text: string) =>
      writtenFor(viola, text, lowestOf('violin'), 'violin')?.map((n) => noteName(n.note))
    expect(low('G3/0 A/1')).toEqual(['G3', 'A3'])
    expect(low('E5/0 F#/1')).toEqual(['E5', 'F♯5'])
    expect(writtenFor(contextOf('violin'), 'F3 G3', lowestOf('violin'), 'violin')).toBeUndefined()
    // Four octaves are more than a bass has.
    expect(writtenFor(contextOf('bass'), 'G3 G4 G5 G6 G7', lowestOf('violin'), 'violin')).toBeUndefined()
  })

  it('is what an exercise of the studio plays, and one that is told plays nothing', () => {
    const own = ownExercise({ id: 'own-rock', notes: 'G3 A B' })
    const told = ownExercise({ id: 'own-told' })
    const of = (id: `own-${string}`) =>
      practiceNotes(id, { familyId: 'cello', tuning: familyOf('cello').tuning, own: [own, told] })
    expect(of('own-rock')?.notes.map((n) => noteName(n.note))).toEqual(['G2', 'A2', 'B2'])
    expect(of('own-told')).toBeUndefined()
    expect(of('own-gone')).toBeUndefined()
  })
})
