import { describe, expect, it } from 'vitest'
import { familyOf, placeOfNote, shapeOf, type Finger } from '../instrument'
import { note, noteName } from '../pitch'
import { placeOfRatio } from '../stop'
import { shaped, strung } from '../testing'
import {
  heardOfRecord,
  landingAtCents,
  landingFromMeter,
  METER_SIGMA_CENTS,
  recordedLanding,
  shapeExercise,
  shownByMeter,
  targetsOf,
  type ExpectedNote,
} from './index'

const violin = strung('violin', 328)

describe('an exercise', () => {
  it('of a hand shape is the open string and every finger that stops a note', () => {
    const { name, notes } = shaped('violin')
    expect(name).toEqual({ kind: 'shape', shapeId: 'first', stringIndex: 2 })
    expect(notes.map((n) => `${n.finger} ${noteName(n.note)}`)).toEqual([
      '0 A4',
      '1 B4',
      '2 C♯5',
      '3 D5',
      '4 E5',
    ])
    const bass = familyOf('bass')
    const fingers = shapeExercise(bass.tuning, 0, shapeOf(bass, 'first')!).notes.map((n) => n.finger)
    expect(fingers).toEqual([0, 1, 2, 4] satisfies (Finger | 0)[])
    expect(() => shapeExercise(bass.tuning, 6, shapeOf(bass, 'first')!)).toThrow('no string 6')
  })

  it('has its places on one string with what a meter shows there', () => {
    const targets = targetsOf(violin, shaped('violin'))
    expect(targets[0]).toMatchObject({ placeMm: 0, cents: 0, meterCents: 0 })
    expect(targets[4]?.placeMm).toBeCloseTo(placeOfRatio(328, 3 / 2), 9)
    expect(targets[3]?.meterCents).toBeCloseTo(-1.955, 3) // a pure fourth is 498.045
  })
})

describe('a landing', () => {
  const [open, first] = shaped('violin', 1).notes as [ExpectedNote, ExpectedNote]

  it('from a meter says string, finger, note, place, cents, how sure, when and by what', () => {
    // E on the D string rings at a ninth (9:8, published) and shows +2 there: a pure fifth above A
    const landing = landingFromMeter(violin, first, 1.955, 1250)
    expect(landing).toEqual({
      stringIndex: 1,
      finger: 1,
      note: note('E4'),
      positionId: 'first',
      placeMm: expect.closeTo(328 / 9, 3) as number,
      cents: expect.closeTo(0, 2) as number,
      sigmaCents: METER_SIGMA_CENTS,
      atMs: 1250,
      source: 'meter',
      heard: null,
    })
    expect(landingFromMeter(violin, first, 20).atMs).toBeNull()
  })

  it('off its note lies where the string sounds that: sharp towards the bridge, by the instrument’s own places', () => {
    const rung = strung('violin', 328, undefined, {
      lengthsMm: [326, 327, 328, 329],
      pressing: { mode: 'typical', nutHeightMm: 0, endHeightMm: 0, material: 'gut' },
      finds: [{ stringIndex: 1, cents: 203.91, placeMm: 37.4, isTrusted: true }],
    })
    const facts = { sigmaCents: 2, atMs: null, source: 'simulated' } as const
    expect(landingAtCents(rung, first, 0, facts).placeMm).toBe(placeOfNote(rung, 1, note('E4')))
    expect(landingAtCents(rung, first, 12, facts).placeMm).toBeGreaterThan(placeOfNote(rung, 1, note('E4')))
  })

  it('of an open string stops nothing', () => {
    expect(landingFromMeter(violin, open, 14)).toMatchObject({ placeMm: 0, finger: 0 })
    // In pure fifths from A the open D hangs two cents low, and a meter shows it.
    expect(landingFromMeter(violin, open, -1.955).cents).toBeCloseTo(0, 2)
  })

  it('shows on a meter what it was read from', () => {
    for (const shown of [-40, 0, 7.5])
      for (const expected of [open, first])
        expect(shownByMeter(violin, landingFromMeter(violin, expected, shown))).toBeCloseTo(shown, 9)
  })
})

it('a landing is kept as one row of names and numbers, and what was heard beside comes back as it was', () => {
  const facts = { sigmaCents: 2, atMs: 40, source: 'recording' } as const
  const heard = { settledCents: 5, settledSigmaCents: 1, lastsMs: 400, confidence: 0.9, wobbleCents: 0 }
  const { notes } = shaped('violin')
  const row = recordedLanding(landingAtCents(violin, notes[3]!, 12, { ...facts, heard }))
  expect(row).toMatchObject({ note: 'D5', finger: 3, cents: 12, wobbleCents: 0, brightnessDb: null })
  expect(heardOfRecord(row)).toEqual(heard)
  expect(heardOfRecord(recordedLanding(landingAtCents(violin, notes[3]!, 12, facts)))).toBeNull()
})
