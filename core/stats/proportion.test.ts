import { describe, expect, it } from 'vitest'
import { proportionInterval } from './index'

describe('the interval of a proportion', () => {
  // R. G. Newcombe, Statistics in Medicine 17 (1998) 857, table I, method 3; from memory.
  it.each([
    [81, 263, 0.2553, 0.3662],
    [15, 148, 0.0624, 0.1605],
    [0, 20, 0, 0.1611],
    [1, 29, 0.0061, 0.1718],
  ])('of %i in %i is the published one', (hits, trials, low, high) => {
    const [a, b] = proportionInterval(hits, trials, 0.95)
    expect(a).toBeCloseTo(low, 4)
    expect(b).toBeCloseTo(high, 4)
    // What is counted the other way round is the other way round.
    const [c, d] = proportionInterval(trials - hits, trials, 0.95)
    expect([c, d]).toEqual([expect.closeTo(1 - b, 12), expect.closeTo(1 - a, 12)])
  })

  it('is of something', () => {
    for (const [hits, trials] of [
      [0, 0],
      [3, 2],
      [-1, 2],
      [NaN, 2],
    ] as const)
      expect(() => proportionInterval(hits, trials, 0.95)).toThrow(RangeError)
  })
})
