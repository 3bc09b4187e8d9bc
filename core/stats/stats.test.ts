import { describe, expect, it } from 'vitest'
import { fitLine, slopeInterval, studentsT, whereLineReaches } from './index'

it('Student’s t agrees with a printed table (NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.2)', () => {
  for (const [degrees, t90, t975] of [
    [1, 3.078, 12.706],
    [2, 1.886, 4.303],
    [4, 1.533, 2.776],
    [10, 1.372, 2.228],
    [30, 1.31, 2.042],
    [100, 1.29, 1.984],
  ] as const) {
    expect(studentsT(0.9, degrees)).toBeCloseTo(t90, 3)
    expect(studentsT(0.975, degrees)).toBeCloseTo(t975, 3)
  }
  expect(studentsT(0.9, 0)).toBeNaN()
})

describe('a line of least squares', () => {
  // F. J. Anscombe, Graphs in statistical analysis, Am. Stat. 27 (1973) 17: y = 3.00 + 0.500 x, standard error of the slope 0.118.
  const x = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5]
  const y = [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68]
  const line = fitLine(x.map((at, i) => ({ x: at, y: y[i]! })))!

  it('is the published one', () => {
    expect([line.slope, line.at(0)].map((n) => Number(n.toFixed(2)))).toEqual([0.5, 3])
    expect(line.slopeSigma).toBeCloseTo(0.118, 3)
    expect(line.sigma ** 2 * line.degreesOfFreedom).toBeCloseTo(13.76, 1)
    const [low, high] = slopeInterval(line, 0.95)
    expect([low, high].map((n) => Number(n.toFixed(3)))).toEqual([0.233, 0.767]) // 0.500 ± 2.262 · 0.118
  })

  it('reaches a height where its own interval holds it, ends included', () => {
    const where = whereLineReaches(line, 12, 0.8)!
    expect(line.at(where.x)).toBeCloseTo(12, 9)
    for (const end of where.interval) {
      const reach =
        studentsT(0.9, 9) * line.sigma * Math.sqrt(1 / 11 + (end - line.meanX) ** 2 / line.spreadX)
      expect(Math.abs(line.at(end) - 12)).toBeCloseTo(reach, 9)
    }
    const flat = fitLine([0, 1, 2, 3].map((at) => ({ x: at, y: 5 + (at % 2) })))!
    expect(whereLineReaches(flat, 9, 0.8)).toBeUndefined()
  })

  it('is none through points of one x', () => {
    expect(fitLine([1, 1].map((at) => ({ x: at, y: 2 })))).toBeUndefined()
  })
})
