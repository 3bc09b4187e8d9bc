import { describe, expect, it } from 'vitest'
import { familyOf, placeOnString, schoolOf, type FamilyId, type StringingFacts } from '../instrument'
import { equal, fifths, just, note, noteName, type TuningSystem } from '../pitch'
import { placeOfRatio } from '../stop'
import { strung } from '../testing'
import { chartTapes } from './chart'
import { marksOfSchool, type MarkSpec } from './marks'
import { planTapes } from './plan'
import { ringRows, ringStrength, rowsToLayBy, silentMarks, whereabouts } from './ring-rows'

function taped(
  familyId: FamilyId,
  lengthMm: number,
  system: TuningSystem = fifths,
  facts: Partial<StringingFacts> = {},
) {
  const family = familyOf(familyId)
  const marks: MarkSpec[] = marksOfSchool(family, schoolOf(family, 'every')!)
  const stringing = strung(familyId, lengthMm, system, facts)
  const tapes = chartTapes(stringing, planTapes(stringing, marks))
  return { stringing, tapes, rows: tapes.flatMap((mark) => ringRows(stringing, mark)) }
}

const said = ({ rows }: ReturnType<typeof taped>) =>
  rows.map(({ mark, open, stopped, rings: [best] }) => {
    const answers = best ? ` rings ${noteName(best.open, { octave: false })}, ${ringStrength(best)}` : ''
    return `${mark.finger} ${noteName(stopped)} on ${noteName(open, { octave: false })}${answers}`
  })

describe('what rings at a violin’s tapes', () => {
  // docs/trade.md § 2: 1 on G and D; 3 on D, A and E; 4 on G, D and A; nothing for 1 on A and E. Common practice.
  it('is what teachers listen for: octaves at 1 and 3, the next open string at 4', () => {
    const violin = taped('violin', 328)
    const strong = said(violin).filter((text) => text.endsWith('strong') || text.endsWith('clear'))
    for (const known of ['1 A3 on G', '1 E4 on D', '3 G4 on D', '3 D5 on A', '3 A5 on E', '4 D4 on G'])
      expect(strong.some((text) => text.startsWith(known))).toBe(true)
    expect(said(violin).filter((text) => text.startsWith('4 D4 on G'))).toEqual(['4 D4 on G rings D, strong'])
    expect(said(violin).filter((text) => /^1 (B4 on A|F♯5 on E)/.test(text))).toEqual([])
  })

  it('lays tapes by the D string first, then by G, as far as they ring (docs/trade.md § 3)', () => {
    const { stringing, tapes } = taped('violin', 328)
    const laidBy = tapes.map((mark) => {
      const [row] = rowsToLayBy(stringing, mark)
      return row && `${noteName(row.stopped)} on ${noteName(row.open, { octave: false })}`
    })
    // nothing answers the second finger in the ring's own system
    expect(laidBy).toEqual(['E4 on D', undefined, 'G4 on D', 'A4 on D'])
    const bass = familyOf('bass')
    const strings = strung('bass', 1050)
    for (const mark of chartTapes(strings, planTapes(strings, marksOfSchool(bass, bass.schools.at(-1)!))))
      expect(rowsToLayBy(strings, mark)).toEqual(ringRows(strings, mark))
  })

  it('is named with the place of its own string, uneven and pressed as that is', () => {
    const { rows, stringing } = taped('violin', 328, fifths, {
      lengthsMm: [331, 329, 327, 325],
      pressing: { mode: 'typical', nutHeightMm: 0, endHeightMm: 0, material: 'gut' },
    })
    for (const row of rows) expect(row.placeMm).toBe(placeOnString(stringing, row.stringIndex, row.cents))
    const ofThird = rows.filter((row) => row.mark.finger === 3)
    expect(new Set(ofThird.map((row) => row.placeMm.toFixed(1))).size).toBe(ofThird.length)
    // a quarter of the D string, less what pressing takes
    const onD = ofThird.find((row) => row.stringIndex === 1)!
    expect(onD.placeMm).toBeLessThan(placeOfRatio(329, 4 / 3))
    expect(onD.placeMm).toBeGreaterThan(placeOfRatio(329, 4 / 3) - 1)
  })

  it('leaves the tapes that nothing answers to the ear alone', () => {
    const { rows, tapes } = taped('violin', 328)
    expect(silentMarks(rows, tapes).map((mark) => mark.finger)).toEqual([2])
    expect(silentMarks([], tapes)).toHaveLength(tapes.length)
  })

  it('is weaker where the tuning system leaves the pure interval', () => {
    const best = (system: TuningSystem) =>
      taped('violin', 328, system).rows.find((row) => row.mark.finger === 1 && row.stringIndex === 1)
        ?.rings[0]?.strength ?? 0
    // Open strings are tuned equal too where a studio plays equal: the octave is exact in both.
    expect(best(equal)).toBeCloseTo(best(fifths), 9)
    // On the keynote G the first finger of the D string is a comma low.
    expect(best(just(note('G4')))).toBeLessThan(best(fifths) / 2)
  })
})

describe('where a find that disagrees belongs', () => {
  const { stringing, tapes } = taped('violin', 328)
  const third = { stringIndex: 1, cents: 498.045, isTrusted: false }
  const belongs = (placeMm: number) => whereabouts(stringing, tapes, { ...third, placeMm }, note('G4'))

  it('is another tape whose place it is, by its finger and note', () => {
    expect(belongs(placeOfRatio(328, 9 / 8))).toMatchObject({ code: 'place_of_another', mark: { finger: 1 } })
    expect(belongs(placeOfRatio(328, 3 / 2))).toMatchObject({ code: 'place_of_another', mark: { finger: 4 } })
  })

  it('is nowhere else: what it sounds there, off what was written', () => {
    const sharp = placeOnString(stringing, 1, third.cents + 45)
    expect(belongs(sharp)).toEqual({ code: 'sounds_off', offCents: expect.closeTo(45, 6) as number })
  })
})
