import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { decodeTrack, encodeTrack, TRACK_STEP_S } from './track'

const moment = fc.oneof(
  { weight: 1, arbitrary: fc.constant(NaN) },
  { weight: 4, arbitrary: fc.integer({ min: -4500, max: 4000 }) },
)

describe('a track of pitches', () => {
  it('is read back to the cent, silences and leaps too, its level every fourth moment', () => {
    fc.assert(
      fc.property(fc.array(moment, { maxLength: 60 }), fc.integer({ min: -90, max: 0 }), (told, level) => {
        const cents = Float32Array.from(told)
        const levelDb = Float32Array.from(told, (_, i) => level - (i % 8))
        const track = decodeTrack(encodeTrack({ stepS: TRACK_STEP_S, cents, levelDb }))
        expect(track.stepS).toBeCloseTo(TRACK_STEP_S, 6)
        expect([...track.cents]).toEqual(told)
        expect([...track.levelDb]).toEqual(told.map((_, i) => level - ((i - (i % 4)) % 8)))
      }),
      { numRuns: 200, seed: 14 },
    )
  })

  it('of bytes that were cut short, lengthened or are none says so, and never runs away', () => {
    const whole = encodeTrack({
      stepS: TRACK_STEP_S,
      cents: Float32Array.from([-300, -298, NaN, NaN, 12]),
      levelDb: new Float32Array(5).fill(-30),
    })
    for (let length = 0; length < whole.length; length++)
      expect(() => decodeTrack(whole.subarray(0, length))).toThrow('the track ends too soon')
    expect(() => decodeTrack(Uint8Array.from([...whole, 0]))).toThrow('longer than it says')
    expect(() => decodeTrack(Uint8Array.from([9, 1, 1]))).toThrow('version 9')
    expect(() => decodeTrack(new Uint8Array(50).fill(255))).toThrow(RangeError)
    // A claim of a year in six bytes is not believed.
    expect(() => decodeTrack(Uint8Array.from([1, 100, 255, 255, 255, 255, 127]))).toThrow('damaged')
  })

  it('says a silence in one number, and is damaged where that is none or longer than the track', () => {
    const silent = (count: number) =>
      encodeTrack({
        stepS: TRACK_STEP_S,
        cents: new Float32Array(count).fill(NaN),
        levelDb: new Float32Array(0),
      })
    // Version, three bytes of step, two of count, the sign of a silence and two of its length.
    expect(silent(1000)).toHaveLength(9)
    const ending = (run: number) => Uint8Array.from([1, 100, 4, 0, run, 0])
    expect([...decodeTrack(ending(4)).cents]).toEqual([NaN, NaN, NaN, NaN])
    for (const run of [0, 5, 100]) expect(() => decodeTrack(ending(run))).toThrow('damaged')
  })
})
