import { describe, expect, it } from 'vitest'
import { judgeTake } from '../../verdict'
import { pitchOfExpected, playedNotes, READ_TO_CENTS } from '../../take'
import { shaped, strung } from '../../testing'
import type { HeardNote } from '../notes'
import { landingsOf, readTake } from './read-take'

const violin = strung('violin', 328)
const exercise = shaped('violin')
const line = playedNotes(exercise)
const pitches = line.map((note) => pitchOfExpected(violin, note))

/** A note of half a second, as an ear tells it. */
function note(cents: number, index: number, more: Partial<HeardNote> = {}): HeardNote {
  const pitch = { cents, sigmaCents: 1, fromS: index, toS: index + 0.4 }
  return {
    startS: index,
    endS: index + 0.5,
    landing: pitch,
    settled: pitch,
    glideCents: 0,
    vibrato: null,
    wobbleCents: 1,
    driftCentsPerS: 0,
    levelDb: -20,
    begins: 'freely',
    confidence: 0.97,
    brightnessDb: 0,
    ...more,
  }
}
const played = (off: (finger: number) => number = () => 0) =>
  pitches.map((cents, i) => note(cents + off(Number(line[i]!.finger)), i))
function judge(notes: readonly HeardNote[]) {
  const reading = readTake(notes, violin, line)
  const landings = reading.isOther ? [] : landingsOf(violin, reading, 'recording')
  return { reading, verdict: judgeTake({ stringing: violin, exercise, landings, toleranceCents: 15 }) }
}

describe('a finger that is far off', () => {
  it.each([-100, 90, -140])('by %i cents is read, and never in tune', (off) => {
    const { reading, verdict } = judge(played((finger) => (finger === 2 ? off : 0)))
    const second = reading.readings.filter(({ finger }) => finger === 2)
    expect(second.length).toBeGreaterThan(0)
    for (const { landingCents, isWrong } of second)
      expect([Math.round(landingCents), isWrong]).toEqual([off, false])
    expect(verdict.outcome).not.toBe('in_tune')
  })

  it('by more is another note, and the hand is not in tune without it', () => {
    const { reading, verdict } = judge(played((finger) => (finger === 2 ? -READ_TO_CENTS - 20 : 0)))
    expect(reading.readings.filter(({ finger }) => finger === 2).every((r) => r.isWrong)).toBe(true)
    expect(verdict).toMatchObject({ outcome: 'not_enough_notes', unheard: [2] })
  })
})

describe('what is not judged', () => {
  const doubtOf = (more: Partial<HeardNote>) => {
    const notes = played()
    notes.splice(3, 0, note(pitches[2]!, 2.6, more))
    return readTake(notes, violin, line)
      .readings.map(({ doubt }) => doubt)
      .filter(Boolean)
  }

  it('is far softer than the rest, a soft end of the note before, or without one pitch', () => {
    expect(doubtOf({})).toEqual([])
    expect(doubtOf({ levelDb: -34 })).toEqual(['faint'])
    expect(doubtOf({ levelDb: -30 })).toEqual([])
    expect(doubtOf({ levelDb: -23.5, endS: 2.8 })).toEqual(['rings'])
    expect(doubtOf({ levelDb: -22.5, endS: 2.8 })).toEqual([])
    expect(doubtOf({ levelDb: -23.5, endS: 2.9 })).toEqual([])
    const [one] = played()
    const known = (sigmaCents: number) => ({ landing: { ...one!.landing, cents: pitches[2]!, sigmaCents } })
    expect(doubtOf(known(16))).toEqual(['unsteady'])
    expect(doubtOf(known(11))).toEqual([])
  })

  it('is a take that fits an octave away: another string, and no finger of it', () => {
    const { reading } = judge(pitches.map((cents, i) => note(cents - 1200, i)))
    expect(reading).toMatchObject({ octaves: -1, isOther: true })
    const tune = [0, 300, -700, 100, -1100].map((up, i) => note(pitches[0]! + up - 450, i))
    expect(readTake(tune, violin, line)).toMatchObject({ octaves: 0, isOther: true })
  })

  it('is told as company where much of it is short and unsteady', () => {
    const beside = (count: number, lastsS: number, more: Partial<HeardNote> = {}) => {
      const babble = [-900, -700, -1000, -850, -600]
        .slice(0, count)
        .map((cents, i) => note(cents, 0.2 + i, { endS: 0.2 + i + lastsS, ...more }))
      return readTake(
        [...played(), ...babble].sort((a, b) => a.startS - b.startS),
        violin,
        line,
      )
    }
    expect(beside(5, 0.24)).toMatchObject({ hasCompany: true, isOther: false })
    // Nine notes of half a second: an eighth of all is company, less is a slip.
    expect(beside(3, 0.24).hasCompany).toBe(true)
    expect(beside(3, 0.16).hasCompany).toBe(false)
    expect(beside(2, 0.29).hasCompany).toBe(false)
    // Notes of a piece are no babble, unless they waver as a voice does.
    expect(beside(5, 0.36).hasCompany).toBe(false)
    expect(beside(5, 0.36, { wobbleCents: 9.5 }).hasCompany).toBe(true)
    expect(beside(5, 0.36, { wobbleCents: 6.5 }).hasCompany).toBe(false)
    expect(readTake(played(), violin, line).hasCompany).toBe(false)
  })

  it('is the landing of an open string: its attack widens the ± of the fingers instead', () => {
    const scooped = pitches.map((cents, i) => {
      const settled = { cents, sigmaCents: 1, fromS: i, toS: i + 0.4 }
      if (line[i]!.finger !== 0) return note(cents, i)
      return note(cents, i, { landing: { ...settled, cents: cents + 9 }, settled, glideCents: -9 })
    })
    const { reading, verdict } = judge(scooped)
    expect(reading.tuning[0]!.cents).toBeCloseTo(0, 6)
    expect(verdict.outcome).not.toBe('string_out_of_tune')
    const stopped = reading.readings.find(({ finger }) => finger === 1)!
    expect(stopped.landingSigmaCents).toBeGreaterThan(9)
  })
})
