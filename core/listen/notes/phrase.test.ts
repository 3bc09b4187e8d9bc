import { describe, expect, it } from 'vitest'
import type { PitchFrame } from '../pitch'
import { NOTE_OPTIONS } from './note-finder'
import { Phrase } from './phrase'

const HOP_S = 0.0116

/** A stretch on one pitch, or on its way to another one; null has no pitch. */
interface Stretch {
  readonly cents: number | null
  readonly to?: number
  readonly lastsS: number
  readonly levelDb?: number
  /** Of its first moments, which rise from there. */
  readonly fromDb?: number
  /** So many of its last moments rest on where it goes. */
  readonly rests?: number
}

/** The notes of a phrase whose plateaus are these stretches, as [cents, seconds]; `told` is the pitch of the note before. */
function notesOf(stretches: readonly Stretch[], told?: number): (readonly [number, number])[] {
  const frames: PitchFrame[] = []
  const all = stretches.map(
    ({ cents, to = cents ?? 0, lastsS, levelDb = -20, fromDb = levelDb, rests = 0 }) => {
      const count = Math.round(lastsS / HOP_S)
      const from = frames.length
      for (let i = 0; i < count; i++) {
        const through = i / Math.max(1, count - 1)
        const on = Math.min(1, i / Math.max(1, count - 1 - rests))
        const pitch = cents === null ? null : cents + on * (to - cents)
        frames.push({
          atS: frames.length * HOP_S,
          frequencyHz: pitch === null ? null : 440 * 2 ** (pitch / 1200),
          sigmaCents: 0.3,
          confidence: 0.97,
          levelDb: fromDb + through * (levelDb - fromDb),
          brightDb: levelDb - 10,
          stiffness: 0,
          otherHz: null,
        })
      }
      return { from, to: frames.length, isLost: cents === null }
    },
  )
  // What has no pitch is on the plateau before it, or begins the first.
  const voiced = all.filter(({ isLost }) => !isLost)
  const plateaus = voiced.map(({ from }, i) => ({
    from: i === 0 ? 0 : from,
    to: voiced[i + 1]?.from ?? frames.length,
  }))
  const phrase = new Phrase(frames, HOP_S, NOTE_OPTIONS, told === undefined ? undefined : { cents: told })
  return phrase
    .notes(plateaus)
    .map(({ from, to, cents }) => [Math.round(cents), Math.round(100 * (to - from) * HOP_S) / 100])
}
const held = (cents: number, lastsS: number, levelDb?: number): Stretch => ({
  cents,
  lastsS,
  ...(levelDb !== undefined && { levelDb }),
})
const pitches = (...of: Parameters<typeof notesOf>) => notesOf(...of).map(([cents]) => cents)

describe('neighbouring plateaus', () => {
  it('less than a step apart are one note that an ear moved, and a step apart are two', () => {
    expect(pitches([held(0, 0.3), held(35, 0.3)])).toHaveLength(1)
    expect(pitches([held(0, 0.3), held(50, 0.3)])).toEqual([0, 50])
  })

  it('belong to nobody between them while the pitch is on its way, and are notes where it rests', () => {
    const slide = { cents: 60, to: 240, lastsS: 0.17 }
    expect(notesOf([held(0, 0.3), slide, held(300, 0.4)])).toEqual([
      [0, 0.3],
      [300, 0.39],
    ])
    // A fast scale rests on each of its notes, and a long one is no slide however it sinks.
    expect(pitches([held(0, 0.3), held(200, 0.1), held(400, 0.3)])).toEqual([0, 200, 400])
    expect(pitches([held(0, 0.3), { ...slide, lastsS: 0.24 }, held(300, 0.4)])).toHaveLength(3)
    // On 15 moments of which five rest it is a slide, on seven a note.
    expect(pitches([held(0, 0.3), { ...slide, rests: 5 }, held(300, 0.4)])).toEqual([0, 300])
    expect(pitches([held(0, 0.3), { ...slide, rests: 7 }, held(300, 0.4)])).toHaveLength(3)
    // Three cents a moment is a drift, five are a slide.
    expect(pitches([held(0, 0.3), { cents: 100, to: 140, lastsS: 0.17 }, held(300, 0.3)])).toHaveLength(3)
    expect(pitches([held(0, 0.3), { cents: 100, to: 165, lastsS: 0.17 }, held(300, 0.3)])).toEqual([0, 300])
  })

  it('are the scoop of an attack where the pitch was lost before them, and then of the note that follows', () => {
    const lost = { cents: null, lastsS: 0.05, levelDb: -36, fromDb: -20 }
    const scoop = { cents: 100, to: 190, lastsS: 0.17 }
    const [first, second, ...more] = notesOf([held(0, 0.3), lost, scoop, held(250, 0.4)])
    expect(first![0]).toBe(0)
    expect(second![0]).toBe(250)
    expect(second![1]).toBeGreaterThan(0.55)
    expect(more).toEqual([])
    // From the other side as well, unless from so far that it is a note of its own.
    expect(pitches([held(600, 0.3), lost, scoop, held(250, 0.4)])).toEqual([600, 250])
    expect(pitches([held(600, 0.3), lost, scoop, held(305, 0.4)])).toHaveLength(3)
    // Also where the note before is told already.
    expect(pitches([lost, { ...scoop, lastsS: 0.14 }, held(250, 0.4)], 0)).toEqual([250])
  })

  it('leave the moments without a pitch, from the softest on, to the note that begins', () => {
    const [first, second] = notesOf([
      held(0, 0.3),
      { cents: null, lastsS: 0.06, levelDb: -34, fromDb: -20 },
      held(200, 0.3),
    ])
    expect(first![0]).toBe(0)
    expect(second![0]).toBe(200)
    expect(second![1]).toBeGreaterThan(0.3)
  })
})

describe('a moment that is misheard', () => {
  it('an octave or a twelfth off is the note it stands in, unless it stays', () => {
    for (const off of [1200, -1200, 1902, -2400])
      expect(pitches([held(0, 0.3), held(off, 0.19), held(5, 0.3)])).toHaveLength(1)
    expect(pitches([held(0, 0.3), held(1200, 0.27), held(5, 0.3)])).toHaveLength(3)
    // As it dies away, too.
    expect(pitches([held(0, 0.3), held(1200, 0.19)])).toEqual([0])
  })

  it('on a low string also where another note follows; higher up an octave may be played so fast', () => {
    expect(pitches([held(-2600, 0.3), held(-1400, 0.19), held(-2400, 0.3)])).toEqual([-2600, -2400])
    expect(pitches([held(-1500, 0.3), held(-300, 0.19), held(-1300, 0.3)])).toHaveLength(3)
  })

  it('far below both notes, or an octave off the next, is the next one’s attack; also after a note that is told already', () => {
    for (const off of [-500, -1000])
      expect(pitches([held(200, 0.3), held(off, 0.1), held(300, 0.3)])).toEqual([200, 300])
    expect(pitches([held(200, 0.3), held(-300, 0.1), held(300, 0.3)])).toHaveLength(3)
    expect(pitches([held(-2000, 0.1), held(300, 0.3)], 200)).toEqual([300])
    // For longer it is a note.
    expect(pitches([held(200, 0.3), held(-500, 0.16), held(300, 0.3)])).toHaveLength(3)
  })
})

describe('the first moment out of silence', () => {
  it('is the attack of what follows where it is left at once, and a note where it stays', () => {
    expect(notesOf([held(-150, 0.08), held(0, 0.4)])).toEqual([[0, 0.48]])
    expect(pitches([held(-150, 0.13), held(0, 0.4)])).toHaveLength(2)
    // In the middle of a phrase a note may be that short.
    expect(pitches([held(-150, 0.08), held(0, 0.4)], -350)).toHaveLength(2)
  })

  it('may take longer while the level still rises, and longest where a low string only scoops', () => {
    const rising = (cents: number, lastsS: number, fromDb = -34): Stretch => ({
      cents,
      lastsS,
      fromDb,
      levelDb: -24,
    })
    expect(pitches([rising(-150, 0.14), held(0, 0.4)])).toEqual([0])
    expect(pitches([rising(-150, 0.21), held(0, 0.4)])).toHaveLength(2)
    expect(pitches([rising(-50, 0.26), held(0, 0.4)])).toHaveLength(1)
    expect(pitches([rising(-50, 0.36), held(0, 0.4)])).toHaveLength(2)
    expect(pitches([rising(-70, 0.26), held(0, 0.4)])).toHaveLength(2)
    // Two and a half decibels are no rise.
    expect(pitches([held(-150, 0.14, -22.5), held(0, 0.4)])).toHaveLength(2)
    expect(pitches([held(-150, 0.14, -24), held(0, 0.4)])).toEqual([0])
  })
})
