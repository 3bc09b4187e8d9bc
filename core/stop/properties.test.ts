import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  FAMILY_IDS,
  familyOf,
  judgeLength,
  parseLength,
  schoolOf,
  shapeOf,
  type LengthUnit,
  MM_PER_UNIT,
} from '../instrument'
import { equal, fifths, just, note, transpose, INTERVALS, midiNumber } from '../pitch'
import { shapeExercise, targetsOf } from '../take'
import { chartTapes, markOf, marksOfSchool, planTapes } from '../tape'
import { strung } from '../testing'
import { centsAtPlace, placeErrorMm, placeOfCents } from './index'

const SEED = { seed: 11, numRuns: 300 }
const anyLength = fc.double({ min: 100, max: 1200, noNaN: true })
const anyCents = fc.double({ min: 0, max: 3600, noNaN: true })
const anyFamily = fc.constantFrom(...FAMILY_IDS).map(familyOf)
const anySystem = fc.constantFrom(fifths, equal, just(note('C4')), just(note('E♭4')), just(note('A4')))

describe('places', () => {
  it('lie between nut and bridge, higher for a higher note, and come back to their cents', () => {
    fc.assert(
      fc.property(
        anyLength,
        anyCents,
        fc.double({ min: 0.1, max: 600, noNaN: true }),
        (length, cents, more) => {
          const place = placeOfCents(length, cents)
          expect(place).toBeGreaterThanOrEqual(0)
          expect(place).toBeLessThan(length)
          expect(placeOfCents(length, cents + more)).toBeGreaterThan(place)
          expect(centsAtPlace(length, place)).toBeCloseTo(cents, 6)
        },
      ),
      SEED,
    )
  })

  it('grow with the string: a half-size is a full size made smaller', () => {
    fc.assert(
      fc.property(
        anyLength,
        anyCents,
        fc.double({ min: 0.3, max: 3, noNaN: true }),
        (length, cents, factor) => {
          expect(placeOfCents(length * factor, cents)).toBeCloseTo(placeOfCents(length, cents) * factor, 6)
        },
      ),
      SEED,
    )
  })

  it('put a sharp finger towards the bridge and a flat one towards the nut', () => {
    fc.assert(
      fc.property(
        anyLength,
        anyCents,
        fc.double({ min: 0.5, max: 99, noNaN: true }),
        (length, cents, off) => {
          const place = placeOfCents(length, cents)
          expect(placeErrorMm(length, place, off)).toBeGreaterThan(0)
          expect(placeErrorMm(length, place, -off)).toBeLessThan(0)
          // the string is shorter further up: the same cents are fewer mm on the sharp side
          expect(placeErrorMm(length, place, off)).toBeLessThan(-placeErrorMm(length, place, -off))
        },
      ),
      SEED,
    )
  })
})

describe('tapes and hands of every family, school and system', () => {
  it('have their fingers in order, their edges round their middles, and the smallest worst error', () => {
    fc.assert(
      fc.property(
        anyFamily,
        anySystem,
        fc.nat(9),
        fc.double({ min: 0.5, max: 12, noNaN: true }),
        (family, system, n, width) => {
          const school = family.schools[n % family.schools.length]!
          const full = strung(family.id, family.board.stringLengthMm, system)
          const plan = planTapes(full, marksOfSchool(family, school))
          const marks = chartTapes(full, plan, { widthMm: width, contact: 'centre' })
          expect(marks).toHaveLength(schoolOf(family, school.id)!.marks.length)
          for (const mark of marks) {
            expect(mark.middleMm - mark.nearEdgeMm).toBeCloseTo(width / 2, 9)
            expect(mark.farEdgeMm - mark.middleMm).toBeCloseTo(width / 2, 9)
            const remainders = mark.strings.map((s) => s.remainderCents)
            // evenly shared: the sharpest string is as far off as the flattest
            expect(Math.max(...remainders) + Math.min(...remainders)).toBeCloseTo(0, 9)
            expect(Math.abs(mark.worst.remainderCents)).toBeCloseTo(Math.max(...remainders.map(Math.abs)), 9)
          }
          const middles = marks.map((m) => m.middleMm)
          expect(middles).toEqual([...middles].sort((a, b) => a - b))
        },
      ),
      SEED,
    )
  })

  it('agree between tape and hand where a tape carries one finger on strings in pure fifths', () => {
    for (const family of FAMILY_IDS.map(familyOf))
      for (const { finger, shapeId } of family.schools.at(-1)!.marks) {
        const shape = shapeOf(family, shapeId)!
        const marks = [markOf(family, shape.fingers[finger]!)]
        const full = strung(family.id, family.board.stringLengthMm)
        const [tape] = chartTapes(full, planTapes(full, marks))
        for (const stringIndex of family.tuning.keys()) {
          const hand = targetsOf(full, shapeExercise(family.tuning, stringIndex, shape))
          expect(hand.find((t) => t.finger === finger)?.placeMm).toBeCloseTo(tape!.middleMm, 9)
        }
      }
  })

  it('spell a shape without jumping a letter or falling back', () => {
    for (const family of FAMILY_IDS.map(familyOf))
      for (const shape of family.shapes)
        for (const [stringIndex, open] of family.tuning.entries()) {
          const stopped = shapeExercise(family.tuning, stringIndex, shape).notes
          const numbers = stopped.map((t) => midiNumber(t.note) - midiNumber(open))
          expect(numbers).toEqual([...numbers].sort((a, b) => a - b))
          for (const { note: n } of stopped) expect(Math.abs(n.accidental)).toBeLessThan(2)
        }
    expect(midiNumber(transpose(note('B3'), INTERVALS.octave))).toBe(midiNumber(note('B4')))
  })
})

describe('a length', () => {
  it('is read the same however it is written', () => {
    const units = Object.keys(MM_PER_UNIT) as LengthUnit[]
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 12_000 }), fc.constantFrom(...units), (tenths, unit) => {
        const number = tenths / 10
        for (const text of [
          `${number} ${unit}`,
          ` ${number}${unit.toUpperCase()} `,
          `${String(number).replace('.', ',')} ${unit}`,
        ]) {
          const parsed = parseLength(text)
          expect(parsed.ok && parsed.lengthMm, text).toBeCloseTo(number * MM_PER_UNIT[unit], 9)
        }
      }),
      SEED,
    )
  })

  it('never fails to be read or judged, whatever is typed', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 30 }), anyFamily, fc.nat(9), (text, family, n) => {
        const parsed = parseLength(text)
        if (!parsed.ok) return
        expect(parsed.lengthMm).toBeGreaterThan(0)
        const size = family.sizes[n % family.sizes.length]!
        const { verdict, explanations } = judgeLength(family, size, parsed)
        if (verdict === 'impossible') expect(explanations.length).toBeGreaterThan(0)
        if (verdict === 'fits') expect(explanations).toEqual([])
      }),
      SEED,
    )
  })

  it('of every size in the tables fits that size', () => {
    for (const family of FAMILY_IDS.map(familyOf))
      for (const size of family.sizes)
        expect(judgeLength(family, size, { number: size.typicalLengthMm, unit: 'mm' }).verdict).toBe('fits')
  })
})
