import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { parseKey } from '../key'
import { equal, midiNumber, noteName } from '../pitch'
import { placementContext } from '../pattern'
import type { DrillId } from '../technique'
import { strung } from '../testing'
import { doubleStops, drillNotes, drillsFor, shiftBetween, type ShiftRequest } from './index'

const key = (text: string) => {
  const parsed = parseKey(text)
  if (!parsed.ok) throw new Error(text)
  return parsed.key
}
const contextOf = (id: FamilyId, frameId?: string) =>
  placementContext(familyOf(id), familyOf(id).tuning, { frameId })
const positionOf = (id: FamilyId, position: string) => familyOf(id).positions.find((p) => p.id === position)!

describe('drills (docs/trade.md § 8)', () => {
  const run = (
    id: FamilyId,
    drillId: DrillId,
    keyText: string,
    string: number,
    position = 'first',
    frameId?: string,
  ) => {
    const context = contextOf(id, frameId)
    const drill = drillsFor(id).find((d) => d.id === drillId)!
    const result = drillNotes(context, drill, key(keyText), string, positionOf(id, position))
    return result.ok
      ? result.notes.map((n) => `${noteName(context.tuning[n.stringIndex]!, { octave: false })}${n.finger}`)
      : result.code
  }

  it('plays open and first twenty times on each string, across them both ways', () => {
    const notes = run('violin', 'open_and_first', 'D', 1)
    expect(notes).toHaveLength(7 * 40)
    expect(notes.slice(0, 4)).toEqual(['G0', 'G1', 'G0', 'G1'])
    expect(notes.at(-1)).toBe('G1')
  })

  it('rolls 1-2-4-2-1-4-2-4 on the bass from the thinnest string down and back, with four fingers as that school has them', () => {
    const notes = run('bass', 'bass_roll', 'G', 0)
    expect(notes.slice(0, 8)).toEqual(['G1', 'G2', 'G4', 'G2', 'G1', 'G4', 'G2', 'G4'])
    expect(notes.at(-1)).toBe('G4')
    expect(notes).toContain('E1')
    expect(run('bass', 'up_from_open', 'F', 0, 'half').slice(0, 7)).toEqual([
      'E0',
      'E1',
      'E2',
      'E4',
      'E2',
      'E1',
      'E0',
    ])
    expect(run('bass', 'up_from_open', 'F', 0, 'half', 'four_finger').slice(0, 5)).toEqual([
      'E0',
      'E1',
      'E2',
      'E3',
      'E4',
    ])
  })

  it('sets the fourth finger against the open string next to it, and says why not elsewhere', () => {
    expect(run('violin', 'fourth_against_open', 'D', 1).slice(0, 2)).toEqual(['D4', 'A0'])
    expect(run('violin', 'fourth_against_open', 'D', 3)).toBe('no_such_open_string')
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
  })

  it('drops the cello’s 1 back, and runs 1-2-3-2 through its closed hand whatever the key', () => {
    expect(run('cello', 'extended_first', 'E♭', 2).slice(0, 4)).toEqual(['D1', 'D2', 'D1', 'D4'])
    expect(run('cello', 'extended_first', 'C', 2)).toBe('not_extended')
    const drill = drillsFor('cello').find((d) => d.id === 'one_two_three_two')!
    const made = drillNotes(contextOf('cello'), drill, key('C'), 2, positionOf('cello', 'first'), 1)
    expect(made.ok && made.notes.map((n) => noteName(n.note, { octave: false })).join(' ')).toBe('E F F♯ F')
  })

  it('names each note as the key spells it, and what it has not with the fewest signs', () => {
    const names = (keyText: string, string: number) => {
      const { across: _, ...drill } = drillsFor('bass').find((d) => d.id === 'up_from_open')!
      const made = drillNotes(contextOf('bass'), drill, key(keyText), string, positionOf('bass', 'half'))
      return made.ok
        ? made.notes
            .slice(0, 4)
            .map((n) => noteName(n.note, { octave: false }))
            .join(' ')
        : made.code
    }
    expect(names('F', 0)).toBe('E F G♭ G')
    expect(names('G', 0)).toBe('E F F♯ G')
    expect(names('B♭', 1)).toBe('A B♭ B C')
    expect(names('F♯', 0)).toBe('E E♯ F♯ G')
  })

  it('is no single note played again and again, for any family, frame and place', () => {
    let made = 0
    for (const id of FAMILY_IDS)
      for (const { id: frameId } of id === 'bass' ? familyOf(id).frames : [familyOf(id).frames[0]!])
        for (const position of familyOf(id).positions)
          for (const drill of drillsFor(id))
            for (let string = 0; string < 4; string++) {
              const one = drillNotes(contextOf(id, frameId), drill, key('D'), string, position, 1)
              if (!one.ok || drill.id === 'fourth_against_open') continue
              made++
              expect(new Set(one.notes.map((n) => midiNumber(n.note))).size, drill.id).toBeGreaterThan(1)
            }
    expect(made).toBeGreaterThan(400)
  })

  it('sounds an octave with 1 and 4: on neighbouring strings, of a bass two strings apart (docs/trade.md § 9)', () => {
    expect(run('violin', 'octave_one_four', 'D', 1).slice(0, 2)).toEqual(['D1', 'A4'])
    expect(run('bass', 'octave_one_four', 'F♯', 0).slice(0, 2)).toEqual(['E1', 'D4'])
    expect(run('bass', 'octave_one_four', 'F♯', 2)).toBe('no_octave')
    expect(run('violin', 'pattern', 'C', 0, 'half')).toBe('no_hand')
  })
})

describe('a shift', () => {
  const shift = (
    id: FamilyId,
    request: Partial<ShiftRequest> & { from: ShiftRequest['from']; to: ShiftRequest['to'] },
  ) =>
    shiftBetween(contextOf(id), strung(id, id === 'violin' ? 328 : 690, equal), {
      key: key('D'),
      stringIndex: 2,
      fromFinger: 1,
      toFinger: 1,
      ...request,
    })
  const violin = (to: string, fromFinger: 0 | 1 | 2 | 3 | 4, toFinger: 1 | 2 | 3 | 4) => {
    const made = shift('violin', {
      from: positionOf('violin', 'first'),
      to: positionOf('violin', to),
      fromFinger,
      toFinger,
    })
    if (!made.ok) throw new Error(made.code)
    return made.shift
  }

  it('goes as far as its guide finger travels: B to D on the A string, three semitones (derived)', () => {
    const made = violin('third', 1, 3)
    expect(made.guide).toBe(1)
    expect(made.distanceMm).toBeCloseTo(328 * (2 ** (-2 / 12) - 2 ** (-5 / 12)), 9)
    // What first position has on the E string lies on the A string now.
    expect(made.staying.map((s) => noteName(s.note))).toContain('F♯5')
  })

  it('goes back by the same way', () => {
    const there = violin('third', 2, 2)
    const back = shift('violin', {
      from: positionOf('violin', 'third'),
      to: positionOf('violin', 'first'),
      fromFinger: 2,
    })
    if (!back.ok) throw new Error(back.code)
    expect(there.distanceMm + back.shift.distanceMm).toBeCloseTo(0, 9)
  })

  it('is free while an open string sounds, and opens the hand where it arrives extended', () => {
    expect(violin('third', 0, 1)).toMatchObject({ guide: undefined })
    const made = shift('cello', {
      key: key('C'),
      from: positionOf('cello', 'first'),
      to: positionOf('cello', 'third'),
    })
    expect(made.ok && made.shift.opens).toBe('forward')
  })

  it('is led by any finger of any family to any place on the board, on or off a note of the key', () => {
    let offKey = 0
    for (const id of FAMILY_IDS) {
      const { positions, frames } = familyOf(id)
      const fingers = Object.keys(frames[0]!.offsets).map(Number) as (1 | 2 | 4)[]
      for (const to of positions)
        for (const fromFinger of fingers)
          for (const toFinger of fingers) {
            const made = shift(id, { from: positions[1]!, to, fromFinger, toFinger })
            if (!made.ok) throw new Error(`${id} ${to.id} ${fromFinger} ${toFinger}: ${made.code}`)
            const { isGuideInKey, distanceMm, from } = made.shift
            if (!isGuideInKey.before || !isGuideInKey.after) offKey++
            expect(Math.sign(distanceMm)).toBe(Math.sign(positions.indexOf(to) - 1))
            expect(from.stops.some((s) => s.finger === fromFinger)).toBe(true)
          }
    }
    expect(offKey).toBeGreaterThan(20)
    const far = { id: 'far', letter: 22, firstFingerSemitones: [38] }
    expect(shift('violin', { from: positionOf('violin', 'first'), to: far })).toMatchObject({
      ok: false,
      code: 'off_board',
      position: far,
    })
  })
})

describe('double stops', () => {
  const names = (
    id: FamilyId,
    kind: Parameters<typeof doubleStops>[2]['kind'],
    text: string,
    reachMm: number | null = null,
    position = 'first',
  ) =>
    doubleStops(contextOf(id), strung(id, id === 'cello' ? 690 : 328, equal), {
      key: key(text),
      kind,
      position: positionOf(id, position),
      reachMm,
    })
  const written = (stops: ReturnType<typeof names>) =>
    stops.map(
      ({ lower, upper }) => `${noteName(lower.note)}.${lower.finger} ${noteName(upper.note)}.${upper.finger}`,
    )

  it('set 4 against the open string that it sounds like, and no other finger, and nothing where it sounds otherwise', () => {
    expect(written(names('violin', 'fourth_against_open', 'D'))).toEqual([
      'D4.4 D4.0',
      'A4.4 A4.0',
      'E5.4 E5.0',
    ])
    // In B♭ the E of the A string is flat; in second position it is 3 that sounds like the open string.
    expect(written(names('violin', 'fourth_against_open', 'B♭'))).toEqual(['D4.4 D4.0', 'A4.4 A4.0'])
    expect(names('violin', 'fourth_against_open', 'D', null, 'second')).toEqual([])
  })

  it('are those of every first book: thirds 2 with open, 3 with 1, 4 with 2; sixths, octaves 1–4 (common practice, no source)', () => {
    expect(written(names('violin', 'thirds', 'D'))).toEqual(
      expect.arrayContaining(['F♯4.2 A4.0', 'G4.3 B4.1', 'A4.4 C♯5.2']),
    )
    expect(written(names('violin', 'sixths', 'D'))).toEqual(
      expect.arrayContaining(['E4.1 C♯5.2', 'D4.0 B4.1']),
    )
    expect(written(names('violin', 'octaves', 'D'))).toEqual(
      expect.arrayContaining(['E4.1 E5.4', 'D4.0 D5.3']),
    )
    expect(written(names('violin', 'fourth_against_open', 'D'))).toEqual([
      'D4.4 D4.0',
      'A4.4 A4.0',
      'E5.4 E5.0',
    ])
  })

  it('have one finger a string, in one frame, and are measured against the hand', () => {
    for (const kind of ['thirds', 'sixths', 'octaves'] as const)
      for (const { lower, upper, spreadMm } of names('cello', kind, 'C')) {
        if (lower.finger !== 0 && upper.finger !== 0) expect(lower.finger).not.toBe(upper.finger)
        expect(spreadMm).toBeLessThan(135)
      }
    const [widest] = names('violin', 'octaves', 'D', 60).filter((d) => d.lower.finger === 1)
    // 1 to 4 in first position, docs/trade.md § 4: 73 mm at 328.
    expect(widest!.spreadMm).toBeCloseTo(73, 0)
    expect(widest!.isInReach).toBe(false)
    expect(names('violin', 'octaves', 'D')[0]!.isInReach).toBeUndefined()
  })
})
