import { randomNormal } from 'd3-random'
import { describe, expect, it } from 'vitest'
import { seededSource } from '../simulate'
import { trendOf, type TrendPoint } from './index'

/** One check a week with this slope a month, and noise. */
function weeks(count: number, perMonth: number, sigma: number, seed = 1): TrendPoint[] {
  const noise = randomNormal.source(seededSource(seed))(0, sigma)
  return Array.from({ length: count }, (_, week) => ({
    day: 7 * week,
    value: 20 + (perMonth * 7 * week) / (365.25 / 12) + noise(),
  }))
}

describe('a trend', () => {
  it('is the slope a month of a robust line, which one wild check does not bend', () => {
    const points = weeks(30, -2, 1).map((p, i) => (i === 25 ? { ...p, value: 90 } : p))
    const trend = trendOf(points)
    if (trend.outcome !== 'line') throw new Error('no line')
    expect(trend.perMonth).toBeCloseTo(-2, 0)
    expect(trend.interval[0]).toBeLessThan(-2)
    expect(trend.interval[1]).toBeGreaterThan(-2)
    expect(trend.on(70)).toBeCloseTo(20 - (2 * 70) / 30.44, 0)
  })

  it('is not said of few weeks, of a short time, or of many checks in one lesson', () => {
    expect(trendOf(weeks(5, -2, 1))).toEqual({ outcome: 'too_few', weeks: 5 })
    expect(trendOf(weeks(6, -2, 0.1).map((p) => ({ ...p, day: p.day / 2 }))).outcome).toBe('too_few')
    const lesson = Array.from({ length: 40 }, (_, i) => ({ day: 700 + i / 10, value: i }))
    expect(trendOf(lesson)).toEqual({ outcome: 'too_few', weeks: 1 })
    expect(trendOf([])).toEqual({ outcome: 'too_few', weeks: 0 })
  })

  it.each([8, 60])('of %i weeks holds the truth nineteen times in twenty', (count) => {
    const trials = 400
    let held = 0
    for (let seed = 0; seed < trials; seed++) {
      const trend = trendOf(weeks(count, 1, 4, 100 + seed))
      if (trend.outcome === 'line' && trend.interval[0] <= 1 && trend.interval[1] >= 1) held++
    }
    // Kendall’s numbers are whole: of few points the interval holds somewhat more.
    expect(held / trials).toBeGreaterThan(0.92)
    expect(held / trials).toBeLessThan(0.99)
  })
})
