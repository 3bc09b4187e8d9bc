import { describe, expect, it } from 'vitest'
import { centsPerMm } from '../stop'
import { targetsOf } from '../take'
import { shaped, strung } from '../testing'
import { NO_FAULTS, playExercise, seededSource, type PlayerFaults, type RandomSource } from './index'

const violin = strung('violin', 328)
const exercise = shaped('violin')
const [, ...targets] = targetsOf(violin, exercise)
const play = (source: RandomSource, faults: PlayerFaults, times?: number) =>
  playExercise(source, violin, exercise, faults, times)

describe('a simulated player', () => {
  it('without faults is never off', () => {
    const readings = play(seededSource(0.1), NO_FAULTS, 3)
    expect(readings).toHaveLength(12)
    expect(readings.every((r) => r.cents === 0)).toBe(true)
  })

  it('plays the same notes for the same seed, and others for another', () => {
    const faults = { ...NO_FAULTS, scatterCents: 8 }
    const seeded = (seed: number) => play(seededSource(seed), faults, 5)
    expect(seeded(0.3)).toEqual(seeded(0.3))
    expect(seeded(0.3)).not.toEqual(seeded(0.4))
  })

  it('begins far from its neighbours with seeds in a row', () => {
    const firsts = Array.from({ length: 20 }, (_, seed) => seededSource(seed + 1)()).sort((a, b) => a - b)
    const gaps = firsts.map((first, i) => first - (firsts[i - 1] ?? 0))
    expect(firsts.at(-1)! - firsts[0]!).toBeGreaterThan(0.7)
    expect(Math.max(...gaps)).toBeLessThan(0.25)
  })

  it('is off by what its faults weigh in cents where the finger stands', () => {
    const [first, , , fourth] = play(seededSource(0.1), { ...NO_FAULTS, handOffsetMm: 1 })
    // one mm is worth 1200 / (ln 2 · (L − x)) cents, more the higher the finger (derived)
    expect(first?.cents).toBe(Math.round(centsPerMm(328, targets[0]!.placeMm + 0.5)))
    expect(fourth?.cents).toBe(Math.round(centsPerMm(328, targets[3]!.placeMm + 0.5)))
    expect(fourth!.cents).toBeGreaterThan(first!.cents)
  })

  it('with a wide frame leaves the first finger and moves the others in proportion', () => {
    const readings = play(seededSource(0.1), { ...NO_FAULTS, frameErrorMm: 4 })
    expect(readings[0]?.cents).toBeCloseTo(0, 9)
    expect(readings.map((r) => r.cents)).toEqual([...readings.map((r) => r.cents)].sort((a, b) => a - b))
  })

  it('scatters about its mean with the spread it was given', () => {
    const faults = { ...NO_FAULTS, scatterCents: 6, stringCents: 10 }
    const cents = play(seededSource(0.7), faults, 500).map((r) => r.cents)
    const mean = cents.reduce((sum, c) => sum + c, 0) / cents.length
    const spread = Math.sqrt(cents.reduce((sum, c) => sum + (c - mean) ** 2, 0) / cents.length)
    // 2000 notes: the mean repeats within 6/√2000 = 0.13, the spread within 6/√4000 = 0.1 cents; four of each are allowed
    expect(Math.abs(mean - 10)).toBeLessThan(0.6)
    expect(Math.abs(spread - 6)).toBeLessThan(0.5)
  })
})
