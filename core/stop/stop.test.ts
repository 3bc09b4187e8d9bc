import { describe, expect, it } from 'vitest'
import { SYNTONIC_COMMA_CENTS } from '../pitch'
import { centsAtPlace, centsPerMm, placeErrorMm, placeOfCents, placeOfRatio, ratioAtPlace } from './index'

describe('where a stopped note lies', () => {
  it('has the whole-number places (Helmholtz, On the Sensations of Tone)', () => {
    const length = 360
    expect(placeOfRatio(length, 2)).toBeCloseTo(length / 2, 9)
    expect(placeOfRatio(length, 3 / 2)).toBeCloseTo(length / 3, 9)
    expect(placeOfRatio(length, 4 / 3)).toBeCloseTo(length / 4, 9)
    expect(placeOfRatio(length, 5 / 4)).toBeCloseTo(length / 5, 9)
    expect(placeOfRatio(length, 6 / 5)).toBeCloseTo(length / 6, 9)
    expect(placeOfRatio(length, 9 / 8)).toBeCloseTo(length / 9, 9)
  })

  it('follows the lutherie rule of 17.817 on a 650 mm string', () => {
    // published rule: each semitone lies at the remaining length / 17.817 from the one before;
    // worked for 650 mm: 36.48, 70.92, 103.42, …, 325.0 at the twelfth
    let place = 0
    const places = Array.from({ length: 12 }, () => (place += (650 - place) / 17.817))
    expect(places[0]).toBeCloseTo(36.48, 2)
    expect(places[1]).toBeCloseTo(70.92, 2)
    expect(places[2]).toBeCloseTo(103.42, 2)
    places.forEach((expected, i) => expect(placeOfCents(650, 100 * (i + 1))).toBeCloseTo(expected, 1))
    expect(placeOfCents(650, 1200)).toBeCloseTo(325, 9)
  })

  it('comes back from place to cents and ratio', () => {
    for (const cents of [-30, 0, 90, 203.9, 498, 1200, 2400]) {
      const place = placeOfCents(328, cents)
      expect(centsAtPlace(328, place)).toBeCloseTo(cents, 9)
      expect(1200 * Math.log2(ratioAtPlace(328, place))).toBeCloseTo(cents, 9)
    }
  })

  it('weighs a millimetre as the derivative does', () => {
    const [length, place, step] = [328, 82, 1e-4]
    const slope = (centsAtPlace(length, place + step) - centsAtPlace(length, place - step)) / (2 * step)
    expect(centsPerMm(length, place)).toBeCloseTo(slope, 6)
    expect(placeErrorMm(length, place, slope * step)).toBeCloseTo(step, 7)
  })

  it('makes a 3 mm tape about 18 cents wide at a violin’s first finger (docs/trade.md § 3, derived)', () => {
    const middle = placeOfRatio(328, 9 / 8)
    expect(centsAtPlace(328, middle + 1.5) - centsAtPlace(328, middle - 1.5)).toBeCloseTo(17.8, 1)
  })

  it('moves the first finger by a comma of 3.6 mm on a full-size violin', () => {
    // 328 · (9/10 − 8/9) = 3.64: the places of 10:9 and 9:8
    expect(placeOfRatio(328, 9 / 8) - placeOfCents(328, 203.91 - SYNTONIC_COMMA_CENTS)).toBeCloseTo(3.64, 2)
  })
})
