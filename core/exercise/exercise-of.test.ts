import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { keysOf, MODE_IDS } from '../key'
import { placementAt, placementContext } from '../pattern'
import { midiNumber, noteName, parseNote } from '../pitch'
import { placesOf, playedNotes, type ExerciseName, type ExpectedNote } from '../take'
import { exerciseOf, stringsThatPlay } from './index'

const contextOf = (id: FamilyId) => placementContext(familyOf(id), familyOf(id).tuning)
const made = (id: FamilyId, name: ExerciseName) => {
  const one = exerciseOf(contextOf(id), name)
  if (!one.ok) throw new Error(one.code)
  return one.exercise
}
/** `A1 B4` is B by 1 on the A string. */
const written = (id: FamilyId, notes: readonly ExpectedNote[]) =>
  notes
    .map(({ stringIndex, finger, note }) => {
      const { letter } = familyOf(id).tuning[stringIndex]!
      return `${letter}${finger}:${noteName(note, { octave: false })}`
    })
    .join(' ')

describe('an exercise by its name', () => {
  it('is a hand shape, as checks always had it', () => {
    const exercise = made('violin', { kind: 'shape', shapeId: 'first', stringIndex: 2 })
    expect(written('violin', exercise.notes)).toBe('A0:A A1:B A2:C♯ A3:D A4:E')
    expect(exercise.notes.map((n) => n.positionId)).toEqual([null, 'first', 'first', 'first', 'first'])
    expect(written('violin', playedNotes(exercise))).toBe('A0:A A1:B A2:C♯ A3:D A4:E A3:D A2:C♯ A1:B A0:A')
  })

  it('is a scale over the strings, as first scales are fingered (common practice, no source)', () => {
    const scale = { kind: 'scale', keyId: 'D:major', octaves: 1, openStrings: 'prefer' } as const
    const d = made('violin', scale)
    expect(written('violin', d.notes.slice(0, 8))).toBe('D0:D D1:E D2:F♯ D3:G A0:A A1:B A2:C♯ A3:D')
    // It is written up and down already.
    expect(playedNotes(d)).toBe(d.notes)
    expect(placesOf(d.notes)).toHaveLength(8)
    const byFour = made('violin', { ...scale, openStrings: 'avoid' })
    expect(written('violin', byFour.notes)).toContain('D4:A')
    // As a studio's teachers have settled it.
    const settled = exerciseOf(contextOf('violin'), scale, { locks: [{ index: 4, finger: 4 }] })
    expect(settled.ok && written('violin', settled.exercise.notes)).toContain('D4:A')
    const arpeggio = made('cello', { ...scale, kind: 'arpeggio', keyId: 'C:major' })
    expect(written('cello', arpeggio.notes.slice(0, 4))).toBe('C0:C C3:E G0:G G4:C')
  })

  it('is a drill four times over, across the strings where it goes across', () => {
    const where = { keyId: 'D:major', stringIndex: 2, positionId: 'first' } as const
    const drill = made('violin', { kind: 'drill', drillId: 'one_two_one', ...where })
    expect(written('violin', drill.notes.slice(0, 4))).toBe('A1:B A2:C♯ A1:B A2:C♯')
    expect(drill.notes).toHaveLength(16)
    const across = made('violin', { kind: 'drill', drillId: 'open_and_first', ...where })
    expect(new Set(across.notes.map((n) => n.stringIndex)).size).toBe(4)
  })

  it('is every hand of the atlas that is one: its open string and its fingers, no more (all keys, strings and places)', () => {
    const keys = MODE_IDS.flatMap((mode) => keysOf(mode))
    fc.assert(
      fc.property(
        fc.constantFrom(...FAMILY_IDS),
        fc.constantFrom(...keys),
        fc.nat(3),
        fc.nat(20),
        (id, key, stringIndex, at) => {
          const context = contextOf(id)
          const position = context.family.positions[at % context.family.positions.length]!
          const cell = placementAt(context, key, stringIndex, position)
          const name = { kind: 'hand', keyId: key.id, stringIndex, positionId: position.id } as const
          const hand = exerciseOf(context, name)
          expect(hand.ok).toBe(cell.kind === 'placement')
          if (!hand.ok || cell.kind === 'none') return
          const [open, ...stopped] = hand.exercise.notes
          expect(open).toMatchObject({ finger: 0, positionId: null })
          expect(stopped.map((n) => n.finger)).toEqual(cell.stops.map((s) => s.finger))
          for (const { note, positionId } of stopped) {
            expect(midiNumber(note)).toBeGreaterThan(midiNumber(open!.note))
            expect(positionId).toBe(position.id)
          }
        },
      ),
      { numRuns: 200, seed: 14 },
    )
  })

  it('is the octave of 1 and 4 on neighbouring strings, on a bass two strings apart (common practice, no source)', () => {
    const octave = (id: FamilyId, stringIndex: number) =>
      exerciseOf(contextOf(id), { kind: 'octave', stringIndex })
    for (const [id, upper] of [
      ['violin', 1],
      ['bass', 2],
    ] as const) {
      const one = octave(id, 0)
      if (!one.ok) throw new Error(one.code)
      const [low, high] = one.exercise.notes
      expect([low!.stringIndex, low!.finger, high!.stringIndex, high!.finger]).toEqual([0, 1, upper, 4])
      expect(midiNumber(high!.note) - midiNumber(low!.note)).toBe(12)
    }
    expect(octave('bass', 2)).toMatchObject({ code: 'no_hand' })
    expect(octave('cello', 0)).toMatchObject({ code: 'no_hand' })
  })

  it('is on the strings that have it: no 4 beside an open string where the hand is closed or strings are a fourth apart', () => {
    const match = (id: FamilyId, kind: 'fourth' | 'octave') =>
      stringsThatPlay(contextOf(id), { kind, stringIndex: 0 })
    expect([match('violin', 'fourth'), match('viola', 'octave')]).toEqual([
      [0, 1, 2],
      [0, 1, 2],
    ])
    expect([match('cello', 'fourth'), match('cello', 'octave'), match('bass', 'fourth')]).toEqual([
      [],
      [],
      [],
    ])
    expect(match('bass', 'octave')).toEqual([0, 1])
    // 1-2-4 has no third finger: of a bass the drill 1-2-3-2 is for four fingers alone (docs/trade.md § 4).
    const bass = familyOf('bass')
    const withThird = bass.frames.map(({ id }) => [
      id,
      stringsThatPlay(placementContext(bass, bass.tuning, { frameId: id }), {
        kind: 'drill',
        drillId: 'one_two_three_two',
        keyId: 'D:major',
        positionId: 'first',
        stringIndex: 0,
      }).length,
    ])
    expect(Object.fromEntries(withThird)).toEqual({ one_two_four: 0, four_finger: 4 })
  })

  it('is none, and says why, where the strings do not have it', () => {
    const context = contextOf('violin')
    const scale = { kind: 'scale', octaves: 1, openStrings: 'prefer' } as const
    const hand = { kind: 'hand', keyId: 'D:major', positionId: 'first' } as const
    const drill = { ...hand, kind: 'drill', stringIndex: 2 } as const
    const codes = [
      { kind: 'shape', shapeId: 'no such', stringIndex: 0 },
      { kind: 'shape', shapeId: 'first', stringIndex: 4 },
      { ...scale, keyId: 'H:major' },
      { ...scale, kind: 'arpeggio', keyId: 'B:chromatic', octaves: 9 as 3 },
      { ...hand, stringIndex: 9 },
      { ...hand, stringIndex: 2, positionId: 'no such' },
      { ...drill, drillId: 'no such' },
      // The fourth finger meets the next open string only where there is one.
      { ...drill, drillId: 'fourth_against_open', stringIndex: 3 },
    ].map((name) => {
      const one = exerciseOf(context, name as ExerciseName)
      return one.ok ? 'made' : one.code
    })
    expect(codes).toEqual([
      'unknown',
      'unknown',
      'unknown',
      'out_of_range',
      'unknown',
      'unknown',
      'unknown',
      'fingers_missing',
    ])
    expect(exerciseOf(context, { kind: 'free' })).toEqual({
      ok: true,
      exercise: { name: { kind: 'free' }, notes: [] },
    })
  })
})

it('places are told once each, string by string and from the nut on', () => {
  const on = (stringIndex: number, finger: 0 | 1 | 2, name: string, positionId: string | null) => ({
    stringIndex,
    finger,
    note: parseNote(name)!,
    positionId,
  })
  const [first, third] = [on(1, 1, 'E4', 'first'), on(1, 1, 'G4', 'third')]
  const open = on(2, 0, 'A4', null)
  expect(placesOf([open, third, first, { ...third }, open])).toEqual([first, third, open])
})
