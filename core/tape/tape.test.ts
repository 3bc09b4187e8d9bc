import { describe, expect, it } from 'vitest'
import { familyOf, schoolOf, type FamilyId } from '../instrument'
import { equal, fifths, just, note, noteName, type TuningSystem } from '../pitch'
import { strung } from '../testing'
import { chartTapes, marksOfSchool, planTapes } from './index'

function chart(
  familyId: FamilyId,
  schoolId: string,
  lengthMm: number,
  system: TuningSystem,
  tapeWidthMm = 3,
) {
  const family = familyOf(familyId)
  const school = schoolOf(family, schoolId)
  if (!school) throw new Error(`no school ${schoolId}`)
  const stringing = strung(familyId, lengthMm, system)
  const plan = planTapes(stringing, marksOfSchool(family, school))
  return chartTapes(stringing, plan, { widthMm: tapeWidthMm, contact: 'centre' })
}

describe('a tape chart', () => {
  it('lays a half-size violin’s tapes at a ninth and a quarter of the string (Helmholtz’s whole-number places)', () => {
    const [first, third] = chart('violin', 'first_and_third', 284.5, fifths)
    expect(first?.middleMm).toBeCloseTo(284.5 / 9, 9)
    expect(third?.middleMm).toBeCloseTo(284.5 / 4, 9)
    expect(first?.strings.map((s) => noteName(s.note, { octave: false }))).toEqual(['A', 'E', 'B', 'F♯'])
    expect(first?.worst.remainderCents).toBeCloseTo(0, 9)
  })

  it('puts the edges half a width either side, and the width in cents between them', () => {
    const [first] = chart('violin', 'first', 328, fifths)
    expect((first?.farEdgeMm ?? 0) - (first?.nearEdgeMm ?? 0)).toBeCloseTo(3, 12)
    expect(first?.widthCents).toBeCloseTo(17.8, 1) // docs/trade.md § 3: about 18, derived
  })

  it('shares a just tape’s error evenly between the strings that disagree', () => {
    // in G just, 1 on D (E, 5:3 above G) is a comma below the 1 on G (A, 9:8): the tape lies midway
    const [first] = chart('violin', 'first', 328, just(note('G3')))
    const remainders = first?.strings.map((s) => s.remainderCents) ?? []
    expect(Math.max(...remainders)).toBeCloseTo(21.506 / 2, 3)
    expect(Math.min(...remainders)).toBeCloseTo(-21.506 / 2, 3)
  })

  it('has a school without tapes', () => {
    expect(chart('cello', 'none', 690, equal)).toEqual([])
  })
})
