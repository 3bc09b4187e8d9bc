import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { equal, midiNumber, note, noteName } from '../pitch'
import { keysOf, parseKey } from '../key'
import { placementContext } from '../pattern'
import { strung } from '../testing'
import {
  clefFor,
  drillNotes,
  drillsFor,
  fingerNotes,
  fingerScale,
  shiftBetween,
  upAndDown,
  writtenNote,
  type DrillId,
} from './index'

const key = (text: string) => {
  const parsed = parseKey(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.key
}
const contextOf = (id: FamilyId) => placementContext(familyOf(id), familyOf(id).tuning)
const positionOf = (id: FamilyId, position: string) => familyOf(id).positions.find((p) => p.id === position)!

/** The way up, as teachers write it: `D 0 1 2 3 | A 0 1 2 3`. */
function wayUp(id: FamilyId, keyText: string, octaves: 1 | 2 | 3 = 1): string {
  const context = contextOf(id)
  const scale = fingerScale(context, { key: key(keyText), figure: 'scale', octaves })
  if (!scale.ok) return scale.code
  let string = -1
  return scale.notes
    .slice(0, 7 * octaves + 1)
    .map((n) => {
      const name =
        n.stringIndex === string
          ? ''
          : `${string < 0 ? '' : '| '}${noteName(context.tuning[n.stringIndex]!, { octave: false })} `
      string = n.stringIndex
      return name + n.finger
    })
    .join(' ')
}

describe('the usual fingerings of first scales (common practice, no source)', () => {
  it.each<[FamilyId, string, 1 | 2, string]>([
    ['violin', 'D', 1, 'D 0 1 2 3 | A 0 1 2 3'],
    ['violin', 'A', 1, 'A 0 1 2 3 | E 0 1 2 3'],
    ['violin', 'G', 1, 'G 0 1 2 3 | D 0 1 2 3'],
    ['violin', 'G', 2, 'G 0 1 2 3 | D 0 1 2 3 | A 0 1 2 3 | E 0 1 2'],
    ['viola', 'C', 1, 'C 0 1 2 3 | G 0 1 2 3'],
    ['viola', 'C', 2, 'C 0 1 2 3 | G 0 1 2 3 | D 0 1 2 3 | A 0 1 2'],
    ['cello', 'C', 1, 'C 0 1 3 4 | G 0 1 3 4'],
    ['cello', 'G', 1, 'G 0 1 3 4 | D 0 1 3 4'],
    ['cello', 'D', 1, 'D 0 1 3 4 | A 0 1 3 4'],
    ['cello', 'C', 2, 'C 0 1 3 4 | G 0 1 3 4 | D 0 1 2 4 | A 0 1 2'],
    ['bass', 'G', 1, 'E 2 | A 0 1 2 | D 0 1 4 | G 0'],
    ['bass', 'F', 1, 'E 1 4 | A 0 1 4 | D 0 2 4'],
  ])('of the %s: %s major, %i octave(s)', (id, keyText, octaves, expected) => {
    expect(wayUp(id, keyText, octaves)).toBe(expected)
  })

  it('takes the fourth finger where open strings are avoided', () => {
    const scale = fingerScale(
      contextOf('violin'),
      { key: key('D'), figure: 'scale', octaves: 1 },
      { openStrings: 'avoid' },
    )
    expect(scale.ok && scale.notes.slice(1, 6).map((n) => n.finger)).toContain(4)
  })

  it('fingers every scale and arpeggio of every family on its own notes', () => {
    const faults: string[] = []
    let played = 0
    for (const id of FAMILY_IDS)
      for (const mode of ['major', 'melodic_minor', 'chromatic'] as const)
        // Every third key of the circle: all signs, in a third of the time.
        for (const k of keysOf(mode).filter((_, i) => i % 3 === 0))
          for (const figure of ['scale', 'arpeggio'] as const) {
            const context = contextOf(id)
            const scale = fingerScale(context, { key: k, figure, octaves: 2 })
            if (!scale.ok) faults.push(`${id} ${k.id} ${scale.code}`)
            else
              for (const n of scale.notes) {
                played++
                const open = midiNumber(context.tuning[n.stringIndex]!)
                if (midiNumber(n.note) - open !== n.semitones)
                  faults.push(`${id} ${k.id} ${noteName(n.note)}`)
              }
          }
    expect(faults).toEqual([])
    expect(played).toBeGreaterThan(1000)
  })

  it('comes down a melodic minor as the natural one', () => {
    const notes = upAndDown(key('A melodic minor'), 'scale', note('A3'), 1).map((n) => noteName(n))
    expect(notes.join(' ')).toBe('A3 B3 C4 D4 E4 F♯4 G♯4 A4 G4 F4 E4 D4 C4 B3 A3')
  })

  it('breaks the chord of the key', () => {
    const notes = (text: string) => upAndDown(key(text), 'arpeggio', note('D4'), 1).map((n) => noteName(n))
    expect(notes('D')).toEqual(['D4', 'F♯4', 'A4', 'D5', 'A4', 'F♯4', 'D4'])
    expect(notes('D harmonic minor')[1]).toBe('F4')
  })

  it('says which note no string has', () => {
    expect(fingerNotes(contextOf('violin'), [note('A4'), note('C3')])).toEqual({
      ok: false,
      code: 'note_out_of_reach',
      note: 'C3',
      index: 1,
    })
    expect(wayUp('bass', 'C', 3)).toBe('scale_out_of_range')
  })
})

describe('drills (handbook, section 8)', () => {
  const run = (id: FamilyId, drillId: DrillId, keyText: string, string: number, position = 'first') => {
    const drill = drillsFor(id).find((d) => d.id === drillId)!
    const result = drillNotes(contextOf(id), drill, key(keyText), string, positionOf(id, position))
    return result.ok
      ? result.notes.map(
          (n) => `${noteName(contextOf(id).tuning[n.stringIndex]!, { octave: false })}${n.finger}`,
        )
      : result.code
  }

  it('plays open and first twenty times on each string, across them', () => {
    const notes = run('violin', 'open_and_first', 'D', 1)
    expect(notes).toHaveLength(4 * 40)
    expect(notes.slice(0, 4)).toEqual(['G0', 'G1', 'G0', 'G1'])
  })

  it('rolls 1-2-4-2-1-4-2-4 on the bass from the thinnest string down', () => {
    const notes = run('bass', 'bass_roll', 'G', 0)
    expect(notes.slice(0, 8)).toEqual(['G1', 'G2', 'G4', 'G2', 'G1', 'G4', 'G2', 'G4'])
    expect(notes.at(-1)).toBe('E4')
    expect(run('bass', 'up_from_open', 'F', 0, 'half').slice(0, 7)).toEqual([
      'E0',
      'E1',
      'E2',
      'E4',
      'E2',
      'E1',
      'E0',
    ])
  })

  it('sets the fourth finger against the open string and drops the cello’s 1 back', () => {
    expect(run('violin', 'fourth_against_open', 'D', 1).slice(0, 2)).toEqual(['D4', 'A0'])
    expect(run('violin', 'fourth_against_open', 'D', 3)).toBe('fingers_missing')
    // In the second position 4 on D is B: no open string at all; in D♯'s place no fourth finger is the next string.
    expect(run('violin', 'fourth_against_open', 'D', 1, 'second')).toBe('fingers_missing')
    for (const position of ['half', 'first', 'second', 'third', 'fourth', 'fifth'])
      for (const keyText of ['C', 'D', 'E', 'A♭', 'B'])
        for (const string of [0, 1, 2]) {
          const drill = drillsFor('violin').find((d) => d.id === 'fourth_against_open')!
          const made = drillNotes(
            contextOf('violin'),
            drill,
            key(keyText),
            string,
            positionOf('violin', position),
          )
          if (made.ok) expect(midiNumber(made.notes[0]!.note)).toBe(midiNumber(made.notes[1]!.note))
        }
    expect(run('cello', 'extended_first', 'E♭', 2).slice(0, 4)).toEqual(['D1', 'D2', 'D1', 'D4'])
    expect(run('cello', 'extended_first', 'C', 2)).toBe('fingers_missing')
  })

  it('names each note as the key spells it, and what it has not with the fewest signs', () => {
    const names = (keyText: string, string: number) => {
      const drill = drillsFor('bass').find((d) => d.id === 'up_from_open')!
      const made = drillNotes(
        contextOf('bass'),
        { ...drill, across: undefined as never },
        key(keyText),
        string,
        positionOf('bass', 'half'),
      )
      return made.ok
        ? made.notes
            .slice(0, 4)
            .map((n) => noteName(n.note, { octave: false }))
            .join(' ')
        : made.code
    }
    expect(names('F', 0)).toBe('E F G♭ G')
    expect(names('D', 0)).toBe('E F F♯ G')
    expect(names('B♭', 1)).toBe('A B♭ B C')
    expect(names('F♯', 0)).toBe('E E♯ F♯ G')
  })

  it('is no single note played again and again', () => {
    for (const family of ['violin', 'viola', 'cello', 'bass'] as const)
      for (const position of familyOf(family).positions)
        for (const drill of drillsFor(family))
          for (let string = 0; string < 4; string++) {
            const made = drillNotes(contextOf(family), drill, key('D'), string, position, 1)
            if (made.ok && drill.id !== 'fourth_against_open')
              expect(new Set(made.notes.map((n) => midiNumber(n.note))).size, drill.id).toBeGreaterThan(1)
          }
  })

  it('sounds an octave with 1 and 4 on neighbouring strings', () => {
    expect(run('violin', 'octave_one_four', 'D', 1).slice(0, 2)).toEqual(['D1', 'A4'])
    expect(run('violin', 'pattern', 'C', 0, 'half')).toBe('no_hand')
  })
})

describe('a shift', () => {
  const shift = (to: string, fromFinger: 1 | 2 | 3 | 4, toFinger: 1 | 2 | 3 | 4) =>
    shiftBetween(contextOf('violin'), strung('violin', 328, equal), {
      key: key('D'),
      stringIndex: 2,
      from: positionOf('violin', 'first'),
      to: positionOf('violin', to),
      fromFinger,
      toFinger,
    })

  it('goes as far as its guide finger travels: B to D on the A string, three semitones (derived)', () => {
    const result = shift('third', 1, 3)
    if (!result.ok) throw new Error(result.code)
    expect(result.shift.guide).toBe(1)
    expect(result.shift.distanceMm).toBeCloseTo(328 * (2 ** (-2 / 12) - 2 ** (-5 / 12)), 9)
    // What first position has on the E string lies on the A string now.
    expect(result.shift.staying.map((s) => noteName(s.note))).toContain('F♯5')
  })

  it('goes back by the same way', () => {
    const there = shift('third', 2, 2)
    const back = shiftBetween(contextOf('violin'), strung('violin', 328), {
      key: key('D'),
      stringIndex: 2,
      from: positionOf('violin', 'third'),
      to: positionOf('violin', 'first'),
      fromFinger: 2,
      toFinger: 2,
    })
    if (!there.ok || !back.ok) throw new Error('no shift')
    expect(back.shift.distanceMm).toBeLessThan(0)
    expect(Math.abs(there.shift.distanceMm + back.shift.distanceMm)).toBeLessThan(1)
  })

  it('says where there is no hand to shift to', () => {
    expect(shift('half', 1, 1)).toMatchObject({ ok: false, code: 'no_hand', position: { id: 'half' } })
  })
})

describe('clefs (common practice, no source)', () => {
  it('are each family’s own, tenor and treble high up, and a bass is written an octave higher', () => {
    expect(clefFor('violin', [note('G3')])).toBe('treble')
    expect(clefFor('viola', [note('C4')])).toBe('alto')
    expect(clefFor('cello', [note('C3')])).toBe('bass')
    expect(clefFor('cello', [note('A4')])).toBe('tenor')
    expect(noteName(writtenNote('bass', note('E1')))).toBe('E2')
    expect(noteName(writtenNote('cello', note('C2')))).toBe('C2')
  })
})
