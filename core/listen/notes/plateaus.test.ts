import { describe, expect, it } from 'vitest'
import { Plateaus } from './plateaus'

const HOP_S = 0.0116

/** Plateaus of a pitch told moment by moment, as lengths in seconds; null is a moment without one. */
function lengthsOf(pitches: readonly (number | null)[]): number[] {
  const plateaus = new Plateaus(HOP_S)
  for (const cents of pitches) plateaus.push(cents, 1)
  return plateaus.all().map(({ from, to }) => Math.round(100 * (to - from) * HOP_S) / 100)
}
const held = (cents: number, seconds: number) =>
  Array.from({ length: Math.round(seconds / HOP_S) }, () => cents)
const swung = (widthCents: number, rateHz: number, seconds: number, about = 0) =>
  Array.from(
    { length: Math.round(seconds / HOP_S) },
    (_, i) => about + (widthCents / 2) * Math.sin(2 * Math.PI * rateHz * i * HOP_S),
  )

describe('plateaus of a pitch', () => {
  it('are one in a vibrato as wide as recorded violins have it, and two where its middle steps by a half step', () => {
    for (const [width, rate] of [
      [46, 5.5],
      [70, 6],
      [80, 7],
    ] as const)
      expect(lengthsOf(swung(width, rate, 1.5))).toHaveLength(1)
    expect(lengthsOf([...swung(46, 5.5, 0.8), ...swung(46, 5.5, 0.8, 100)])).toHaveLength(2)
  })

  it('are two from a step of 60 cents that stays a tenth of a second, and one where it comes back at once', () => {
    expect(lengthsOf([...held(0, 0.3), ...held(60, 0.1)])).toHaveLength(2)
    expect(lengthsOf([...held(0, 0.3), ...held(60, 0.06), ...held(0, 0.3)])).toHaveLength(1)
    // A short note of a scale stands between its neighbours.
    expect(lengthsOf([...held(0, 0.3), ...held(200, 0.1), ...held(400, 0.3)])).toHaveLength(3)
  })

  it('pass over moments that are lost, wild or heard an octave off', () => {
    const lost = held(0, 0.6).map((cents, i) => (i % 3 === 0 ? null : cents))
    expect(lengthsOf(lost)).toHaveLength(1)
    expect(lengthsOf([...held(0, 0.3), ...held(1205, 0.1), ...held(0, 0.3)])).toHaveLength(1)
    expect(lengthsOf([...held(0, 0.3), ...held(-2900, 0.035), ...held(0, 0.3)])).toHaveLength(1)
    expect(lengthsOf([...held(0, 0.3), ...held(1200, 0.3)])).toHaveLength(2)
    expect(lengthsOf([null, null])).toHaveLength(1)
    expect(lengthsOf([])).toEqual([])
  })

  it('cost so much that only what stays, or lies far off for longer, is worth one', () => {
    const frames = (cents: number, count: number) => Array.from({ length: count }, () => cents)
    expect(lengthsOf([...held(0, 0.3), ...frames(60, 4)])).toHaveLength(1)
    expect(lengthsOf([...held(0, 0.3), ...frames(60, 6)])).toHaveLength(2)
    const away = (cents: number, count: number) =>
      lengthsOf([...held(0, 0.3), ...frames(cents, count), ...held(0, 0.3)]).length
    // Wild moments, and moments heard in another octave, bounded.
    expect([away(500, 4), away(500, 5)]).toEqual([1, 3])
    expect([away(1200, 12), away(1200, 13)]).toEqual([1, 3])
    // To the lowest string of a bass.
    expect(lengthsOf([...held(-4700, 0.3), ...held(-4550, 0.3)])).toHaveLength(2)
  })
})
