import { describe, expect, it } from 'vitest'
import type { PitchFrame } from '../pitch'
import { isStroke } from './strokes'

const HOP_S = 0.0116

/** Frames of one pitch with these levels, dB; `confidence` and `bright` of each moment where they are not plain. */
function framesOf(
  levels: readonly number[],
  of: (i: number) => { readonly confidence?: number; readonly brightDb?: number } = () => ({}),
): PitchFrame[] {
  return levels.map((levelDb, i) => ({
    atS: i * HOP_S,
    frequencyHz: 440,
    sigmaCents: 0.2,
    confidence: 0.99,
    levelDb,
    brightDb: levelDb - 10,
    stiffness: 0,
    otherHz: null,
    ...of(i),
  }))
}
/** 1.4 s at −10 dB, with falls of `db` about these frames. */
const withFalls = (db: number, ...at: number[]) =>
  Array.from({ length: 120 }, (_, i) => -10 - db * Math.max(0, ...at.map((a) => 1 - Math.abs(i - a) / 5)))

describe('a stroke on the same pitch', () => {
  it('is a fall deeper than what is ordinary, and not the swing of a vibrato', () => {
    expect(isStroke(framesOf(withFalls(9, 60)), 60)).toBe(true)
    // Ten decibels, six times a second: recorded violins do.
    const swings = Array.from({ length: 120 }, (_, i) => -10 - 5 * (1 - Math.cos((2 * Math.PI * i) / 14)))
    for (let at = 35; at < 80; at++) expect(isStroke(framesOf(swings), at)).toBe(false)
    // Deeper than those by enough, it is one all the same.
    const turned = swings.map((db, i) => db - 12 * Math.max(0, 1 - Math.abs(i - 63) / 5))
    expect(isStroke(framesOf(turned), 63)).toBe(true)
  })

  it('is not every fall: a shallow one needs the scratch of an attack beside it', () => {
    const shallow = withFalls(5, 60)
    expect(isStroke(framesOf(shallow), 60)).toBe(false)
    const scratched = framesOf(shallow, (i) => (Math.abs(i - 61) < 3 ? { confidence: 0.75 } : {}))
    expect(isStroke(scratched, 60)).toBe(true)
    // In a hall, where the tone is never clear, such a thing says nothing.
    const murky = framesOf(shallow, (i) => ({ confidence: Math.abs(i - 61) < 3 ? 0.3 : 0.6 }))
    expect(isStroke(murky, 60)).toBe(false)
  })

  it('is a pluck: high partials leap above what they were, while the string has hardly died away', () => {
    const dying = Array.from({ length: 120 }, (_, i) => -10 - 0.08 * (i < 60 ? i : i - 55))
    const plucked = framesOf(dying, (i) => ({ brightDb: i < 60 ? -20 - 0.2 * i : -18 - 0.2 * (i - 60) }))
    const at = dying.indexOf(Math.min(...dying.slice(50, 62)))
    expect(isStroke(plucked, at)).toBe(true)
    expect(isStroke(framesOf(dying), at)).toBe(false)
  })
})

describe('how deep a fall must be', () => {
  /** −10 dB with a fall at frame 60, and another one that far from it. */
  const beside = (db: number, otherDb: number, off = 18) =>
    Array.from({ length: 130 }, (_, i) => {
      const fall = (depth: number, at: number) => depth * Math.max(0, 1 - Math.abs(i - at) / 5)
      return -10 - Math.max(fall(db, 60), fall(otherDb, 60 + off))
    })
  const even = { brightDb: -20 }
  const is = (levels: readonly number[]) =>
    isStroke(
      framesOf(levels, () => even),
      60,
    )

  it('alone, and beyond what is ordinary near it, its own stroke left out', () => {
    expect(is(withFalls(7.2, 60))).toBe(false)
    expect(is(withFalls(8.8, 60))).toBe(true)
    expect(is(beside(12, 8.5))).toBe(false)
    expect(is(beside(12, 6.5))).toBe(true)
    // What belongs to the same stroke, before it and after it, and what is too far to tell anything.
    for (const off of [-7, 12, 24, -24]) expect(is(beside(12, 11, off))).toBe(true)
    for (const off of [-11, 16, 19, -19]) expect(is(beside(12, 11, off))).toBe(false)
  })

  it('within a seventh of a second; and a new bow may grow slowly', () => {
    const falling = (dbAFrame: number) =>
      Array.from({ length: 130 }, (_, i) => -10 - (i <= 60 && i > 30 ? dbAFrame * (i - 30) : 0))
    expect(is(falling(0.7))).toBe(true)
    expect(is(falling(0.5))).toBe(false)
    const growing = (riseDb: number, otherDb: number) =>
      beside(20, otherDb, -18).map((db, i) => (i > 60 ? -30 + Math.min(riseDb, 2 * (i - 60)) : db))
    expect(is(growing(3.8, 0))).toBe(false)
    expect(is(growing(4.2, 0))).toBe(true)
    expect(is(growing(7, 9))).toBe(false)
    expect(is(growing(8, 9))).toBe(true)
  })

  /** What has no pitch stands at `looseDb`, and at `scratchDb` about the fall. */
  const scratching = (levels: readonly number[], looseDb: number, scratchDb: number) =>
    isStroke(
      framesOf(levels, (i) => ({
        ...even,
        confidence: 1 - 10 ** (((Math.abs(i - 61) < 3 ? scratchDb : looseDb) - levels[i]!) / 10) + 1e-4,
      })),
      60,
    )

  it('with the scratch of an attack less, if that rises by enough out of a clear tone', () => {
    expect(scratching(withFalls(3, 60), -32, -24)).toBe(false)
    expect(scratching(withFalls(3.9, 60), -32, -24)).toBe(true)
    expect(scratching(withFalls(5, 60), -32, -27)).toBe(false)
    expect(scratching(withFalls(5, 60), -32, -25.5)).toBe(true)
    // A tone that is 6 and 4 dB clear of it.
    expect(scratching(withFalls(5, 60), -23, -16)).toBe(true)
    expect(scratching(withFalls(5, 60), -21, -14.4)).toBe(false)
    expect(scratching(beside(5, 4.2), -32, -24)).toBe(false)
    expect(scratching(beside(5, 3.8), -32, -24)).toBe(true)
  })

  it('more where the tone is not clear of what has no pitch', () => {
    expect(scratching(withFalls(9, 60), -12.9, -12.9)).toBe(false)
    expect(scratching(withFalls(9, 60), -14.2, -14.2)).toBe(true)
    expect(scratching(withFalls(10.5, 60), -12.9, -12.9)).toBe(true)
    expect(scratching(beside(14, 10), -12.9, -12.9)).toBe(false)
    expect(scratching(beside(14, 8), -12.9, -12.9)).toBe(true)
  })
})

describe('how far high partials must leap', () => {
  /** A hardly noticed fall at frame 60; brightness `leap` up from its lowest to `above` what it was, some frames later. */
  const leaps = (leap: number, above: number, { later = 1, isLost = false } = {}) => {
    const frames = framesOf(withFalls(1, 60), (i) => ({
      brightDb: i >= 60 + later ? -20 + above : i >= 58 ? -20 + above - leap : -20,
    }))
    if (isLost) frames[60] = { ...frames[60]!, frequencyHz: null }
    return isStroke(frames, 60)
  }

  it('within some frames, from its lowest and above what it was; less where the pitch is lost', () => {
    expect(leaps(6, 5)).toBe(false)
    expect(leaps(7, 5)).toBe(true)
    expect(leaps(9, 3.6)).toBe(false)
    expect(leaps(9, 4.4)).toBe(true)
    expect(leaps(9, 6, { later: 4 })).toBe(true)
    expect(leaps(9, 6, { later: 5 })).toBe(false)
    const isLost = true
    expect(leaps(4, 3, { isLost })).toBe(false)
    expect(leaps(5, 3, { isLost })).toBe(true)
    expect(leaps(6, 2, { isLost })).toBe(false)
    expect(leaps(6, 2.9, { isLost })).toBe(true)
  })
})
