import { randomNormal } from 'd3-random'
import { describe, expect, it } from 'vitest'
import { note } from '../pitch'
import { seededSource } from '../simulate'
import { FAMILY_IDS, familyOf, judgeStrings, STRING_SIGMA_MM, tuningFault } from './index'

const violin = familyOf('violin')

describe('string lengths one by one', () => {
  it('finds the bridge even within what a ruler reads', () => {
    expect(judgeStrings(violin, [328, 328.4, 327.8, 328.2])).toMatchObject({ code: 'even' })
  })

  it('finds a bridge askew: by how much, on which side, at what angle', () => {
    // 4 mm over the 34 mm between the outer strings at the bridge: atan(4/34) = 6.7°
    expect(judgeStrings(violin, [330, 328.7, 327.3, 326])).toMatchObject({ code: 'askew', side: 'low' })
    const high = judgeStrings(violin, [326, 327.3, 328.7, 330])
    expect(high).toMatchObject({ code: 'askew', side: 'high' })
    expect(high.code === 'askew' && high.byMm).toBeCloseTo(4, 1)
    expect(high.code === 'askew' && high.degrees).toBeCloseTo(6.7, 1)
  })

  it('finds the one string that was read wrong', () => {
    const judged = judgeStrings(violin, [328, 328.2, 334, 328.1])
    expect(judged).toMatchObject({ code: 'one_off', stringIndex: 2 })
  })

  it('calls four even strings, each read to half a millimetre, even: wrong once in twenty-five at most', () => {
    const reading = randomNormal.source(seededSource(4))(328, STRING_SIGMA_MM)
    const codes = Array.from(
      { length: 2000 },
      () => judgeStrings(violin, Array.from({ length: 4 }, reading)).code,
    )
    expect(codes.filter((code) => code !== 'even').length / codes.length).toBeLessThan(0.04)
  })

  it('blames an outer string only for what drawing the line out to it does not explain', () => {
    expect(judgeStrings(violin, [329.5, 328, 328, 328])).toMatchObject({ code: 'even' })
    expect(judgeStrings(violin, [331, 328, 328, 328])).toMatchObject({ code: 'one_off', stringIndex: 0 })
    expect(judgeStrings(violin, [328, 330, 328, 328])).toMatchObject({ code: 'one_off', stringIndex: 1 })
  })

  it('does not believe 300 and 600 on one instrument', () => {
    expect(judgeStrings(violin, [300, 600, 300, 300])).toEqual({
      code: 'contradictory',
      shortestMm: 300,
      longestMm: 600,
    })
  })
})

describe('open strings of one’s own', () => {
  it('may be scordatura, five or six strings, and are refused with what is wrong', () => {
    expect(tuningFault(['G3', 'D4', 'A4', 'D5'].map(note))).toBeUndefined()
    expect(tuningFault(['C3', 'G3', 'D4', 'A4', 'E5'].map(note))).toBeUndefined()
    expect(tuningFault(['B0', 'E1', 'A1', 'D2', 'G2', 'C3'].map(note))).toBeUndefined()
    expect(tuningFault(['G3', 'D4', 'A4'].map(note))).toMatchObject({ code: 'strings_few_or_many' })
    expect(tuningFault(['G3', 'D4', 'C4', 'E5'].map(note))).toEqual({
      code: 'strings_out_of_order',
      stringIndex: 2,
    })
    expect(tuningFault(['G3', 'D5', 'A5', 'E6'].map(note))).toMatchObject({
      code: 'strings_far_apart',
      stringIndex: 1,
    })
    for (const id of FAMILY_IDS) expect(tuningFault(familyOf(id).tuning)).toBeUndefined()
  })
})
