import { describe, expect, it } from 'vitest'
import type { PitchFrame } from '../pitch'
import { isStroke, STROKE } from './strokes'

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
    expect(isStroke(framesOf(withFalls(STROKE.deep.db + 1, 60)), 60)).toBe(true)
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
