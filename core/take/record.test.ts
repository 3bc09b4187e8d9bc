import { expect, it } from 'vitest'
import { familyOf, placeOfNote, snapshotOf } from '../instrument'
import { note } from '../pitch'
import { shaped, strung } from '../testing'
import {
  heardOfRecord,
  landingAtCents,
  landingsOnto,
  nameOfRecord,
  recordedLanding,
  recordedName,
  recordedNote,
  stringNamed,
  takeOfRecord,
  type ExerciseName,
  type TakeRecord,
} from './index'

const violin = strung('violin', 328)
const { tuning } = violin
const { name, notes } = shaped('violin')
const facts = { sigmaCents: 2, atMs: 40, source: 'recording' } as const
const heard = { settledCents: 5, settledSigmaCents: 1, lastsMs: 400, confidence: 0.9, wobbleCents: 0 }

it('an exercise is named by its open string, and read back on any instrument that has one', () => {
  const scale = { kind: 'scale', keyId: 'D:major', octaves: 1, openStrings: 'prefer' } satisfies ExerciseName
  for (const one of [
    name,
    scale,
    { kind: 'octave', stringIndex: 3 },
    { kind: 'free' },
  ] satisfies ExerciseName[])
    expect(nameOfRecord(recordedName(one, tuning), tuning)).toEqual(one)
  expect(recordedName(name, tuning)).toEqual({ kind: 'shape', shapeId: 'first', string: 'A4' })
  expect(recordedName(scale, tuning)).toBe(scale)
  // A viola has its A a string higher, and no E.
  const viola = familyOf('viola').tuning
  expect(nameOfRecord(recordedName(name, tuning), viola)).toMatchObject({ stringIndex: 3 })
  expect(nameOfRecord({ kind: 'octave', string: 'E5' }, viola)).toBeUndefined()
  expect(['G3', 'A4', 'B4', 'string'].map((text) => stringNamed(tuning, text))).toEqual([
    0,
    2,
    undefined,
    undefined,
  ])
})

it('a landing is kept as one row of names and numbers, and what was heard beside comes back as it was', () => {
  const row = recordedLanding(landingAtCents(violin, notes[3]!, 12, { ...facts, heard }))
  expect(row).toMatchObject({ note: 'D5', finger: 3, cents: 12, wobbleCents: 0, brightnessDb: null })
  expect(heardOfRecord(row)).toEqual(heard)
  expect(heardOfRecord(recordedLanding(landingAtCents(violin, notes[3]!, 12, facts)))).toBeNull()
})

it('a take is what its record says, and none where its strings or its exercise cannot be read', () => {
  const landings = [landingAtCents(violin, notes[1]!, -20, { ...facts, heard })]
  const record: TakeRecord = {
    stringing: snapshotOf(violin),
    exercise: { ...recordedName(name, tuning), notes: notes.map(recordedNote) },
    landings: landings.map((landing) => ({ ...recordedLanding(landing), heard })),
    tapesMm: [36.4],
  }
  const take = takeOfRecord(record)!
  expect(take.exercise).toEqual({ name, notes })
  expect(take.landings).toMatchObject(landings)
  expect([take.tapesMm, takeOfRecord({ ...record, tapesMm: null })?.tapesMm]).toEqual([[36.4], []])
  expect(placeOfNote(take.stringing, 2, note('B4'))).toBeCloseTo(placeOfNote(violin, 2, note('B4')), 9)
  const exercise = { ...record.exercise!, string: 'C1' } as TakeRecord['exercise']
  for (const broken of [
    { stringing: null },
    { exercise: null },
    { exercise },
    { stringing: { ...record.stringing!, family: 'kazoo' } },
  ])
    expect(takeOfRecord({ ...record, ...(broken as Partial<TakeRecord>) })).toBeUndefined()
})

it('lengths that are known better move what was heard, and change the pitch of what was measured', () => {
  const first = notes[1]!
  const [open, sung, measured, seen] = landingsOnto(strung('violin', 331), [
    landingAtCents(violin, notes[0]!, 3, facts),
    landingAtCents(violin, first, 12, facts),
    landingAtCents(violin, first, 12, { ...facts, source: 'ruler' }),
    landingAtCents(violin, first, 12, { ...facts, source: 'eye' }),
  ])
  const at = landingAtCents(violin, first, 12, facts).placeMm
  expect(open).toMatchObject({ cents: 3, placeMm: 0 })
  expect(sung).toMatchObject({ cents: 12, placeMm: expect.closeTo((at * 331) / 328, 9) as number })
  // The same place divides a longer string less: cents of a string stopped at x are 1200 log2 L / (L − x).
  const sounds = (lengthMm: number) => 1200 * Math.log2(lengthMm / (lengthMm - at))
  for (const one of [measured!, seen!]) {
    expect(one.placeMm).toBe(at)
    expect(one.cents).toBeCloseTo(12 + sounds(331) - sounds(328), 9)
  }
})
