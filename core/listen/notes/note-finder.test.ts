import { describe, expect, it } from 'vitest'
import type { PitchFrame } from '../pitch'
import { NoteFinder, NOTE_OPTIONS } from './note-finder'

const HOP_S = 0.0116

interface Stretch {
  /** Null of no pitch. */
  readonly cents: number | null
  readonly lastsS: number
  readonly levelDb?: number
  readonly isDouble?: boolean
}
const held = (cents: number | null, lastsS: number, levelDb = -20): Stretch => ({ cents, lastsS, levelDb })
const silence = (lastsS: number) => held(null, lastsS, -80)

function framesOf(stretches: readonly Stretch[]): PitchFrame[] {
  const frames: PitchFrame[] = []
  for (const { cents, lastsS, levelDb = -20, isDouble = false } of stretches)
    for (let i = 0; i < Math.round(lastsS / HOP_S); i++)
      frames.push({
        atS: frames.length * HOP_S,
        frequencyHz: cents === null ? null : 440 * 2 ** (cents / 1200),
        sigmaCents: 0.3,
        confidence: cents === null ? 0.1 : 0.97,
        levelDb,
        brightDb: levelDb - 10,
        stiffness: 0,
        otherHz: isDouble ? 660 : null,
      })
  return frames
}
function heard(stretches: readonly Stretch[]) {
  const finder = new NoteFinder(HOP_S)
  const notes = framesOf(stretches).flatMap((frame) => finder.push(frame))
  return { notes: [...notes, ...finder.end()], doubleStops: finder.doubleStops }
}
const count = (...stretches: Stretch[]) => heard(stretches).notes.length

describe('a note ends', () => {
  it('never by its level alone, but where the pitch is lost and the level down, or the pitch lost for long', () => {
    const quiet = held(0, 0.1, -38)
    expect(count(held(0, 0.4), quiet, held(0, 0.4))).toBe(2)
    expect(count(held(0, 0.4), held(null, 0.1, -22), held(0, 0.4))).toBe(1)
    expect(count(held(0, 0.4), held(null, 0.13, -22), held(0, 0.4))).toBe(1)
    expect(count(held(0, 0.4), held(null, 0.23, -22), held(0, 0.4))).toBe(2)
  })

  it('at once where the level is down with the pitch, else only when the pitch has been lost for longer', () => {
    /** Seconds from when the pitch is lost until the note is told. */
    const toldAfter = (levelDb: number) => {
      const finder = new NoteFinder(HOP_S)
      const frames = framesOf([held(0, 0.4), held(null, 0.3, levelDb)])
      return frames.findIndex((frame) => finder.push(frame).length > 0) * HOP_S - 0.4
    }
    expect(toldAfter(-37)).toBeGreaterThan(0.025)
    expect(toldAfter(-37)).toBeLessThan(0.05)
    expect(toldAfter(-32)).toBeGreaterThan(0.14)
    expect(toldAfter(-32)).toBeLessThan(0.2)
    expect(toldAfter(-37)).toBeLessThan(toldAfter(-33))
  })

  it('where it has fallen so far that it is what the room makes of it', () => {
    const [note] = heard([held(0, 0.4), held(0, 0.6, -40), silence(0.3)]).notes
    expect(note!.endS).toBeCloseTo(1, 1)
    const [dead] = heard([held(0, 0.4), held(0, 0.6, -50), silence(0.3)]).notes
    expect(dead!.endS).toBeCloseTo(0.4, 1)
  })

  it('after a minute in any case, and is no note shorter than seven hundredths of a second', () => {
    expect(count(held(0, 75))).toBe(2)
    expect(count(held(0, 50))).toBe(1)
    expect(count(silence(0.2), held(0, 5 * HOP_S), silence(0.3))).toBe(0)
    expect(count(silence(0.2), held(0, 8 * HOP_S), silence(0.3))).toBe(1)
  })
})

describe('what sounds in a pause', () => {
  const note = held(0, 0.4)
  const pause = silence(0.06)
  it('is an echo where it has the pitch of the note before and does not grow, in any octave', () => {
    const dying = (cents: number, levelDb: number): Stretch[] => [
      held(null, 0.1, -36),
      held(cents, 0.15, levelDb),
    ]
    expect(count(note, ...dying(20, -32))).toBe(1)
    expect(count(note, ...dying(-1180, -32))).toBe(1)
    expect(count(note, ...dying(60, -31.5))).toBe(1)
    expect(count(note, ...dying(85, -32))).toBe(2)
    expect(count(note, ...dying(100, -32))).toBe(2)
    expect(count(note, ...dying(20, -28))).toBe(2)
    // What is as loud as the note was is no echo, though it had not fallen much.
    expect(count(note, held(null, 0.25, -19), held(20, 0.15, -18))).toBe(2)
    expect(count(note, held(null, 0.25, -27), held(20, 0.15, -24))).toBe(2)
    expect(count(note, held(null, 0.25, -30), held(20, 0.15, -27))).toBe(1)
    expect(count(note, held(null, 0.8, -36), held(20, 0.15, -32))).toBe(1)
    // More than a second later it is somebody who plays softly.
    expect(count(note, held(null, 1.2, -36), held(20, 0.15, -32))).toBe(2)
  })

  it('is an echo where it is far softer so soon, whatever its pitch', () => {
    expect(count(note, pause, held(500, 0.2, -54))).toBe(1)
    expect(count(note, pause, held(500, 0.2, -38))).toBe(2)
    // Echoes of a small room have died away by then.
    expect(count(note, silence(0.4), held(500, 0.1, -62))).toBe(2)
  })

  it('is a double stop from an eighth of a second on', () => {
    const double = (lastsS: number): Stretch => ({ cents: null, lastsS, isDouble: true })
    expect(heard([note, double(0.16), silence(0.2)]).doubleStops).toHaveLength(1)
    expect(heard([note, double(0.1), silence(0.2)]).doubleStops).toHaveLength(0)
  })
})

describe('a note begins', () => {
  it('with the scratch of its bow, where that is about as loud; else with its pitch', () => {
    const start = (levelDb: number) =>
      heard([silence(0.3), held(null, 0.09, levelDb), held(0, 0.4)]).notes[0]!.startS
    expect(start(-26)).toBeCloseTo(0.3, 1.5)
    expect(start(-29)).toBeGreaterThan(0.37)
  })

  it('after the one before is over, and where a soft attack has risen by most of what it rises', () => {
    const second = (...attack: Stretch[]) => heard([held(0, 0.4), ...attack, held(500, 0.4, -33)]).notes[1]!
    // Lost at 0.4, hardly softer than the second begins, never softer than its scratch may be.
    expect(second(held(null, 0.14, -38)).startS).toBeGreaterThan(0.39)
    expect(second(held(null, 0.05, -40), held(null, 0.09, -36)).startS).toBeCloseTo(0.44, 1.7)
    expect(second(held(null, 0.05, -37), held(null, 0.09, -36)).startS).toBeCloseTo(0.53, 1.5)
  })

  it('again with a fall of the level in it, though not with the fall of its own attack', () => {
    const fallen = (afterS: number) =>
      count(silence(0.2), held(0, afterS), held(0, 0.03, -33), held(0, 0.8), silence(0.3))
    expect(fallen(0.5)).toBe(2)
    expect(fallen(0.11)).toBe(1)
    expect(fallen(0.19)).toBe(2)
  })
})

describe('on the way', () => {
  it('a note that is over is pending until it is told, and then the same', () => {
    const finder = new NoteFinder(HOP_S)
    const told: number[] = []
    let pending: number[] = []
    for (const frame of framesOf([held(0, 0.5), held(200, 0.6), held(400, 0.3)])) {
      const now = finder.push(frame)
      if (now.length > 0) expect(pending).toContain(Math.round(now[0]!.settled.cents))
      told.push(...now.map((n) => Math.round(n.settled.cents)))
      pending = finder.pending.map((n) => Math.round(n.settled.cents))
    }
    expect(told).toEqual([0, 200].slice(0, told.length))
    expect(finder.sounding!.settled.cents).toBeCloseTo(400, 0)
    expect(NOTE_OPTIONS.stepCents).toBeLessThan(60)
  })
})
