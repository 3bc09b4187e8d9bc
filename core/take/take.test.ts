import { describe, expect, it } from 'vitest'
import { familyOf, placeOfNote, shapeOf, type Finger } from '../instrument'
import { note, noteName } from '../pitch'
import { placeOfRatio } from '../stop'
import { shaped, strung } from '../testing'
import {
  isSamePlace,
  landedPlaces,
  landingAtCents,
  landingFromMeter,
  landingOfReading,
  METER_SIGMA_CENTS,
  mostOffMm,
  pitchOfExpected,
  placesOf,
  playedNotes,
  RULER_SIGMA_MM,
  shapeExercise,
  shownByMeter,
  SIDES,
  sideSeen,
  tapeOf,
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

describe('a reading', () => {
  const [open, first] = shaped('violin', 1).notes as [ExpectedNote, ExpectedNote]
  const place = placeOfNote(violin, 1, note('E4'))
  const centsAt = (mm: number) => 1200 * Math.log2(328 / (328 - mm)) - 1200 * Math.log2(328 / (328 - place))

  it('of a ruler is a place, as sure as a ruler is there', () => {
    const short = landingOfReading(violin, first, { offMm: -3 }, { atMs: 7 })
    expect(short).toMatchObject({ source: 'ruler', atMs: 7, heard: null })
    expect(short.placeMm).toBeCloseTo(place - 3, 9)
    expect(short.cents).toBeCloseTo(centsAt(place - 3), 9)
    // The slope of the same curve, by a step of a thousandth of a millimetre.
    expect(short.sigmaCents).toBeCloseTo((RULER_SIGMA_MM * centsAt(place + 1e-3)) / 1e-3, 3)
    expect(mostOffMm(violin, 1)).toBeCloseTo(328 * (1 - 2 ** (-1 / 12)), 9)
  })

  it('of an eye is beside the tape of the note, where one lies within a quarter tone, and reads back as the same word', () => {
    for (const side of SIDES) {
      const seen = landingOfReading(violin, first, { side })
      expect(sideSeen(seen.cents)).toBe(side)
      const tape = place + 2
      const beside = landingOfReading(violin, first, { side }, { tapesMm: [tape, place + 20, place - 30] })
      expect(beside.cents - seen.cents).toBeCloseTo(centsAt(tape), 9)
    }
    const { cents, sigmaCents } = landingOfReading(violin, first, { side: 'past' })
    // Of a normal distribution with a deviation of 25, what lies above 12: its mean and deviation from tables.
    expect([cents, sigmaCents]).toEqual([expect.closeTo(28.2, 1), expect.closeTo(13, 1)])
    const [target] = targetsOf(violin, { name: { kind: 'free' }, notes: [first] })
    expect(tapeOf(violin, target!, [])).toBeUndefined()
    expect(tapeOf(violin, target!, [place + 12])).toBeUndefined()
    expect(tapeOf(violin, target!, [place - 30, place + 1])?.placeMm).toBe(place + 1)
  })

  it('of nothing, or of a finger on an open string, is refused', () => {
    expect(() => landingOfReading(violin, open, { offMm: 1 })).toThrow('no place to be measured')
    expect(() => landingOfReading(violin, first, {})).toThrow('nothing was read')
    expect(landingOfReading(violin, open, { shownCents: 3 }).source).toBe('meter')
  })
})

it('places are the same only by string, finger, note and position, and lie from the lowest string and the nut on', () => {
  const [, one] = shaped('violin', 1).notes as [ExpectedNote, ExpectedNote]
  const others: ExpectedNote[] = [
    { ...one, stringIndex: 2 },
    { ...one, finger: 2 },
    { ...one, note: note('E5') },
    { ...one, note: note('F4') },
    { ...one, note: note('E♭4') },
    { ...one, positionId: 'third' },
  ]
  for (const other of others) expect(isSamePlace(one, other)).toBe(false)
  expect(isSamePlace(one, { ...one })).toBe(true)
  const [again, second] = [{ ...one }, { ...one, finger: 2 as const }]
  expect(placesOf([others[0]!, second, one, again, others[4]!])).toEqual([others[4], one, second, others[0]])
})

it('a place of more landings lies at their mean, strays left out but never all', () => {
  const { notes, name } = shaped('violin', 1)
  const facts = { sigmaCents: 2, atMs: null, source: 'simulated' } as const
  const [open, near, far] = [
    landingAtCents(violin, notes[0]!, 6, facts),
    landingAtCents(violin, notes[1]!, 10, facts),
    landingAtCents(violin, notes[1]!, 60, facts),
  ]
  const [rest, place] = landedPlaces(violin, [open, near, far], new Set([far, open]))
  expect(rest).toMatchObject({ meanMm: 0, meanCents: 6, strays: [] })
  expect(place).toMatchObject({ meanCents: 10, landings: [near, far], strays: [far] })
  expect(place!.meanMm).toBeCloseTo(near.placeMm - placeOfNote(violin, 1, note('E4')), 9)
  expect(playedNotes({ name, notes }).map((n) => n.finger)).toEqual([0, 1, 2, 3, 4, 3, 2, 1, 0])
  expect(playedNotes({ name: { kind: 'free' }, notes })).toBe(notes)
  expect(pitchOfExpected(violin, notes[1]!) - pitchOfExpected(violin, notes[0]!)).toBeCloseTo(203.91, 2)
  expect(() => pitchOfExpected(violin, { ...notes[1]!, stringIndex: 6 })).toThrow('no string 6')
})
