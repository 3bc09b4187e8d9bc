import { describe, expect, it } from 'vitest'
import { levelWord, listenFaultSentence, microphoneSentence, roomSentence, takeSentence } from './listening'

const level = (levelDb: number, noiseDb: number | null = -70, isClipped = false) => ({
  levelDb,
  noiseDb,
  isClipped,
})

describe('how loud it is', () => {
  it('is told against the room: a note is good that stands well above it', () => {
    expect(levelWord(level(-30))).toBe('good')
    expect(levelWord(level(-50))).toBe('too quiet')
    expect(levelWord(level(-68))).toBe('silent')
    expect(levelWord(level(-30, -40))).toBe('silent')
    expect(levelWord(level(-25, -40))).toBe('too quiet')
    expect(levelWord(level(-3, -70, true))).toBe('too loud')
    // Silence is silence, in a room that makes no sound at all as well, and before it is known.
    expect(levelWord(level(-120, -200))).toBe('silent')
    expect(levelWord(level(-20, null))).toBe('good')
  })

  it('of the room is said before the first note, with what to do where it is too loud', () => {
    expect(roomSentence(null)).toContain('Listening')
    expect(roomSentence(-200)).toBe('The room is quiet.')
    expect(roomSentence(-55)).toBe('The room hums at −55 dB: good enough.')
    expect(roomSentence(-30)).toContain('come nearer')
  })
})

describe('what stands in the way', () => {
  it('says what to do', () => {
    expect(microphoneSentence(new DOMException('', 'NotFoundError'))).toContain('Plug one in')
    expect(microphoneSentence(new Error('strange'))).toContain('type what a meter shows')
    expect(listenFaultSentence({ code: 'rate', sampleRateHz: 4000 })).toContain('8,000 to 192,000')
    expect(listenFaultSentence({ code: 'too_long', minutes: 119.6 })).toContain('120 minutes')
  })

  it('of a take is its exercise, its octave or its loudness, in that order', () => {
    const reading = {
      readings: [{}],
      extra: [],
      missing: [],
      from: 0,
      to: 1,
      tuning: [],
      octaves: 0,
      isOther: false,
    }
    const said = (more: object, clipped = false) =>
      takeSentence({ ...reading, ...more } as unknown as Parameters<typeof takeSentence>[0], clipped)
    expect(said({})).toBe('')
    expect(said({ readings: [] })).toContain('No note was heard')
    expect(said({ isOther: true, octaves: 1 })).toContain('fits this exercise')
    expect(said({ octaves: -1 }, true)).toContain('an octave below')
    expect(said({}, true)).toContain('too loud for the microphone')
  })
})
