import { randomNormal } from 'd3-random'
import { Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { seededSource } from '../simulate'
import { normalBelow } from '../stats'
import { effectOf, type Measured } from './index'

const weeks = (offs: readonly number[], from = 0): Measured[] =>
  offs.map((off, i) => ({ day: 7 * (from + i), off }))

describe('what happened while an exercise was practised', () => {
  it('is too early to say before three looks', () => {
    expect(effectOf(weeks([27, 24, 21]), 0)).toEqual({ code: 'too_early', have: 2, need: 3 })
    expect(effectOf([], 0)).toEqual({ code: 'too_early', have: 0, need: 3 })
  })

  it('is the slope since, with the interval of least squares as ml-matrix solves them', () => {
    const [days, offs] = [
      [7, 14, 21, 28],
      [20, 16, 15, 9],
    ]
    const effect = effectOf(weeks([22, ...offs]), 0)
    const design = new Matrix(days.map((day) => [1, day]))
    const inverse = solve(design.transpose().mmul(design), Matrix.eye(2))
    const found = inverse.mmul(design.transpose()).mmul(Matrix.columnVector(offs))
    const left = Matrix.columnVector(offs).sub(design.mmul(found)).norm('frobenius') ** 2
    // 4.3027: Student's t, 97.5 %, two degrees of freedom, any table.
    const plusMinus = 4.3027 * Math.sqrt((left / 2) * inverse.get(1, 1))
    if (effect.code !== 'changed') throw new Error('three looks are enough')
    expect(effect.change).toBeCloseTo(28 * found.get(1, 0), 8)
    expect(effect.low).toBeCloseTo(28 * (found.get(1, 0) - plusMinus), 3)
    expect(effect.high).toBeCloseTo(28 * (found.get(1, 0) + plusMinus), 3)
    expect(effect.isFaster).toBeNull()
  })

  it('leaves out the look at which it was chosen, which is far off by chance as well', () => {
    const flat = effectOf(weeks([10, 10.2, 9.9, 10.1, 30, 10, 10.1, 9.9, 10]), 28)
    expect(flat).toMatchObject({ code: 'changed', isFaster: null })
    if (flat.code === 'changed') expect(Math.abs(flat.change)).toBeLessThan(0.5)
  })

  it('holds the change at naught where hands were chosen at their worst and only regress to their means', () => {
    // Expected regression after a cut at c: σw²/σt · φ(z)/(1 − Φ(z)), z = (c − μ)/σt. C. E. Davis, Am. J. Epidemiol. 104 (1976) 493;
    // A. G. Barnett, J. C. van der Pols, A. J. Dobson, Int. J. Epidemiol. 34 (2005) 215; both from memory.
    const [mean, between, within, cut] = [12, 4, 6, 20]
    const total = Math.hypot(between, within)
    const z = (cut - mean) / total
    const density = Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI)
    const expected = ((within * within) / total) * (density / (1 - normalBelow(z)))
    const gauss = randomNormal.source(seededSource(11))(0, 1)
    let [hands, regressed, changed, untouched] = [0, 0, 0, 0]
    while (hands < 3000) {
      const hand = mean + between * gauss()
      const looks = Array.from({ length: 6 }, () => hand + within * gauss())
      if (looks[0]! <= cut) continue
      hands++
      regressed += looks[0]! - looks[1]!
      const effect = effectOf(weeks(looks), 0)
      if (effect.code !== 'changed') throw new Error('five looks are enough')
      changed += effect.change
      untouched += Number(effect.low <= 0 && effect.high >= 0)
    }
    expect(regressed / hands).toBeCloseTo(expected, 0)
    // Without that look nothing of it is left: 0 ± 0.25, where seven cents would have been said.
    expect(expected).toBeGreaterThan(6)
    expect(Math.abs(changed / hands)).toBeLessThan(0.6)
    expect(untouched / hands).toBeGreaterThan(0.93)
    expect(untouched / hands).toBeLessThan(0.97)
  })

  it('is faster only where the hand had not mended as fast before', () => {
    const gauss = randomNormal.source(seededSource(3))(0, 0.5)
    const mends = weeks(Array.from({ length: 12 }, (_, i) => 40 - 2 * i + gauss()))
    expect(effectOf(mends, 35)).toMatchObject({ isFaster: null })
    const helped = weeks(Array.from({ length: 12 }, (_, i) => (i < 6 ? 30 : 30 - 4 * (i - 5)) + gauss()))
    expect(effectOf(helped, 35)).toMatchObject({ isFaster: true })
  })

  it('asks the two slopes as a regression with an interaction does, by ml-matrix, over two hundred hands', () => {
    const source = seededSource(11)
    const gauss = randomNormal.source(source)(0, 3)
    let faster = 0
    for (let hand = 0; hand < 200; hand++) {
      // Around where it is told: half of them are, half are not.
      const slope = -0.1 - 0.004 * hand
      const looks = Array.from({ length: 12 }, (_, i) => ({
        day: 7 * i,
        off: 30 + (i > 5 ? slope * 7 * (i - 5) : 0) + gauss(),
      }))
      const effect = effectOf(looks, 35)
      const used = looks.filter(({ day }) => day !== 35)
      const late = (day: number) => Number(day > 35)
      const design = new Matrix(used.map(({ day }) => [1, day, late(day), late(day) * day]))
      const inverse = solve(design.transpose().mmul(design), Matrix.eye(4))
      const offs = Matrix.columnVector(used.map(({ off }) => off))
      const b = inverse.mmul(design.transpose()).mmul(offs)
      const left = offs.sub(design.mmul(b)).norm('frobenius') ** 2
      // 2.3646: Student's t, 97.5 %, seven degrees of freedom, any table.
      const isFaster = b.get(3, 0) + 2.3646 * Math.sqrt((left / (used.length - 4)) * inverse.get(3, 3)) < 0
      expect(effect).toMatchObject({ code: 'changed', isFaster: isFaster || null })
      faster += Number(isFaster)
    }
    expect(faster).toBeGreaterThan(40)
    expect(faster).toBeLessThan(160)
  })
})
