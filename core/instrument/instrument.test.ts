import { describe, expect, it } from 'vitest'
import { midiNumber, noteName } from '../pitch'
import {
  FAMILY_IDS,
  familyOf,
  judgeLength,
  notesOfShape,
  parseLength,
  shapeOf,
  sizeOf,
  type FamilyId,
} from './index'

function judge(familyId: FamilyId, sizeId: string, text: string) {
  const family = familyOf(familyId)
  const size = sizeOf(family, sizeId)
  const parsed = parseLength(text)
  if (!size || !parsed.ok) throw new Error(`bad test case ${familyId} ${sizeId} ${text}`)
  return judgeLength(family, size, parsed)
}

describe('families', () => {
  it('are tuned as players tune them (common practice, no source)', () => {
    const tunings = Object.fromEntries(
      FAMILY_IDS.map((id) => [
        id,
        familyOf(id)
          .tuning.map((n) => noteName(n))
          .join(' '),
      ]),
    )
    expect(tunings).toEqual({
      violin: 'G3 D4 A4 E5',
      viola: 'C3 G3 D4 A4',
      cello: 'C2 G2 D3 A3',
      bass: 'E1 A1 D2 G2',
    })
  })

  it('hold together: every school, shape and default names things that exist and fingers the family uses', () => {
    expect(FAMILY_IDS.length).toBeGreaterThanOrEqual(4)
    for (const family of FAMILY_IDS.map(familyOf)) {
      expect(shapeOf(family, family.defaultShapeId)).toBeDefined()
      expect(family.schools.map((s) => s.id)).toContain(family.defaultSchoolId)
      for (const mark of family.schools.flatMap((s) => s.marks))
        expect(
          shapeOf(family, mark.shapeId)?.fingers[mark.finger],
          `${family.id} ${mark.shapeId}`,
        ).toBeDefined()
      for (const shape of family.shapes)
        expect(Object.keys(shape.fingers).map(Number)).toEqual([...family.fingers])
      const lengths = family.sizes.map((s) => s.typicalLengthMm)
      expect(lengths).toEqual([...lengths].sort((a, b) => b - a))
    }
  })

  it('span the usual frames (docs/trade.md § 4)', () => {
    const span = (id: FamilyId, shapeId: string) => {
      const shape = shapeOf(familyOf(id), shapeId)
      const notes = shape ? notesOfShape(familyOf(id).tuning[0]!, shape) : []
      return midiNumber(notes.at(-1)!.note) - midiNumber(notes[0]!.note)
    }
    expect(span('violin', 'first')).toBe(5)
    expect(span('cello', 'first')).toBe(3)
    expect(span('cello', 'extended_back')).toBe(4)
    expect(span('cello', 'extended_forward')).toBe(4)
    expect(span('bass', 'half')).toBe(2)
  })

  it('expects the usual viola lengths (docs/trade.md § 2, from memory)', () => {
    const lengths = [16, 15, 14, 13, 12].map(
      (inches) => sizeOf(familyOf('viola'), `${inches} in`)?.typicalLengthMm,
    )
    expect(lengths).toEqual([371, 348, 325, 302, 279])
  })
})

describe('a length as typed', () => {
  it.each([
    ['328', 328],
    [' 284,5 ', 284.5],
    ['32.8 cm', 328],
    ['12 7/8 in', 12.875 * 25.4],
    ['12⅞"', 12.875 * 25.4],
    ['7/8 in', 0.875 * 25.4],
    ['.5 in', 12.7],
    ['12-7/8 in', 12.875 * 25.4],
    ["12 7/8''", 12.875 * 25.4],
    ['1,050', 1050],
    ['1,050 cm', 10.5],
    ['1.050', 1.05],
  ])('reads %s', (text, mm) => {
    const parsed = parseLength(text)
    expect(parsed.ok && parsed.lengthMm).toBeCloseTo(mm, 9)
  })

  it.each([
    ['', 'length_empty'],
    ['about 300', 'length_not_a_number'],
    ['328 miles', 'length_not_a_number'],
    ['328 constructor', 'length_not_a_number'],
    ['9'.repeat(400), 'length_not_a_number'],
    ['1.27/8 in', 'length_not_a_number'],
    ['12.5 7/8 in', 'length_not_a_number'],
    ['12 7/0 in', 'length_not_a_number'],
    ['NaN', 'length_not_a_number'],
    ['0', 'length_not_positive'],
    ['-328', 'length_not_positive'],
    ['−7/8 in', 'length_not_positive'],
  ])('refuses “%s” as %s', (text, code) => {
    expect(parseLength(text)).toEqual({ ok: false, code })
  })
})

describe('whether a length can be right (docs/trade.md § 2)', () => {
  it.each([
    ['violin', '4/4', '328'],
    ['violin', '1/2', '284.5'],
    ['violin', '4/4', '12 7/8 in'],
    ['viola', '14 in', '325'],
    ['cello', '4/4', '690'],
    ['bass', '3/4', '1050'],
    // makers of one size differ by three in a hundred
    ['violin', '4/4', '337.84'],
    ['violin', '4/4', '318.16'],
    ['cello', '1/16', '350'],
    ['viola', '17.5 in', '406'],
  ] as const)('%s %s: %s fits', (family, size, text) => {
    expect(judge(family, size, text).verdict).toBe('fits')
  })

  it.each([
    ['violin', '4/4', '328 cm', 'impossible', 'wrong_unit'],
    ['violin', '4/4', '32.8', 'impossible', 'wrong_unit'],
    ['violin', '4/4', '12.9', 'impossible', 'wrong_unit'],
    ['viola', '14 in', '14 in', 'doubtful', 'body_length'],
    ['viola', '14 in', '14', 'impossible', 'body_length'],
    ['viola', '14 in', '355.6', 'doubtful', 'body_length'],
    ['violin', '4/4', '356', 'impossible', 'body_length'],
    ['cello', '4/4', '755', 'impossible', 'body_length'],
    ['violin', '1/2', '332', 'doubtful', 'to_tailpiece'],
    ['violin', '4/4', '391', 'impossible', 'to_tailpiece'],
    ['violin', '4/4', '164', 'impossible', 'octave_for_whole'],
    ['violin', '1/4', '328', 'doubtful', 'other_size'],
    ['violin', '1/2', '275', 'doubtful', 'bridge_or_foot'],
    ['bass', '3/4', '60', 'impossible', 'no_such_instrument'],
  ] as const)('%s %s: %s is %s, first because of %s', (family, size, text, verdict, code) => {
    const judged = judge(family, size, text)
    expect(judged.verdict).toBe(verdict)
    expect(judged.explanations[0]?.code).toBe(code)
  })

  it('names the size that a full-size length on a quarter-size belongs to', () => {
    expect(judge('violin', '1/4', '328').explanations).toEqual([{ code: 'other_size', sizeIds: ['4/4'] }])
  })

  it('knows the whole string where the octave was asked for, and says so', () => {
    const violin = familyOf('violin')
    const judged = judgeLength(violin, sizeOf(violin, '4/4')!, { number: 328, unit: 'mm', times: 2 })
    expect(judged).toMatchObject({
      verdict: 'impossible',
      explanations: [{ code: 'whole_for_octave', lengthMm: 328 }],
    })
    expect(judgeLength(violin, sizeOf(violin, '4/4')!, { number: 164, unit: 'mm', times: 2 }).verdict).toBe(
      'fits',
    )
  })

  it('has a body for every size: 1100 on a three-quarter bass may be it, or the string of a larger one', () => {
    expect(judge('bass', '3/4', '1100').explanations.map((e) => e.code)).toEqual([
      'other_size',
      'body_length',
      'bridge_or_foot',
    ])
    for (const family of FAMILY_IDS.map(familyOf))
      for (const size of family.sizes) expect(size.typicalBodyMm).toBeGreaterThan(size.typicalLengthMm)
  })

  it('says in which unit the number would have made sense', () => {
    expect(judge('violin', '4/4', '328 cm').explanations[0]).toEqual({
      code: 'wrong_unit',
      typed: 'cm',
      meant: 'mm',
      lengthMm: 328,
    })
  })
})
