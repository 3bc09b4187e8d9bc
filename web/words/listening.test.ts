import { describe, expect, it } from 'vitest'
import { levelWord, listenFaultSentence, microphoneSentence, roomSentence, takeSentence } from './listening'

const level = (levelDb: number, noiseDb: number | null = -70, isClipped = false) => ({
  levelDb,
  noiseDb,
  isClipped,
  humHz: null,
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
    expect(roomSentence(-91)).toBe('The room is quiet.')
    // Sixteen bits have more noise than that: a room is never so quiet, a muted microphone is.
    expect(roomSentence(-93)).toContain('is it muted')
    expect(roomSentence(-55)).toBe('The room is at −55 dB: good enough.')
    expect(roomSentence(-55, 50)).toContain('hums at 50 Hz')
    expect(roomSentence(-30)).toContain('come nearer')
  })
})

describe('what stands in the way', () => {
  it('says what to do', () => {
    expect(microphoneSentence(new DOMException('', 'NotFoundError'))).toContain('Plug one in')
    expect(microphoneSentence(new DOMException('', 'NotSupportedError'))).toContain('over https')
    expect(microphoneSentence(new Error('strange'))).toContain('type what a meter shows')
    expect(listenFaultSentence({ code: 'rate', sampleRateHz: 4000 })).toContain('8,000 to 192,000')
    expect(listenFaultSentence({ code: 'too_long', minutes: 119.6 })).toContain('120 minutes')
  })

  describe('of a take', () => {
    const note = { doubt: undefined, isWrong: false, index: 0 }
    const reading = {
      readings: [note],
      extra: [],
      missing: [],
      octaves: 0,
      isOther: false,
      hasCompany: false,
    }
    const plain = { hasClipped: false, humHz: null, ringsS: 0.2, doubleStops: [] }
    const said = (more: object, whole: object = {}) =>
      takeSentence(
        { ...reading, ...more } as unknown as Parameters<typeof takeSentence>[0],
        { ...plain, ...whole },
        (index) => ['A4', 'B4', 'C♯5'][index]!,
      )

    it('is nothing, or that it was something else: then no finger is judged', () => {
      expect(said({})).toBe('')
      expect(said({ readings: [] })).toContain('No note was heard')
      expect(said({ isOther: true })).toContain('fits this exercise')
      expect(said({ isOther: true, octaves: -1 })).toMatch(/an octave below.*No finger is judged/)
    })

    it('names what was not heard and what is not judged, and why', () => {
      expect(said({ missing: [1, 2, 1] })).toBe('Not heard: B4 and C♯5.')
      expect(said({ readings: [{ ...note, index: 2, isWrong: true }] })).toContain(
        'Another note was played for C♯5',
      )
      expect(said({ readings: [note, { ...note, index: 1, doubt: 'unsteady' }] })).toContain(
        'No steady pitch: B4',
      )
      expect(said({ readings: [note, { ...note, index: 1, doubt: 'octave' }] })).toContain(
        'another octave: B4',
      )
      expect(said({ readings: [note, { ...note, doubt: 'faint' }] })).toContain('1 note much softer')
      expect(said({ extra: [{}, {}] })).toContain('2 notes more')
    })

    it('says what was in the way, and what to do', () => {
      expect(said({ hasCompany: true, extra: [{}] })).toMatch(/^Somebody seems to talk.*in quiet\.$/)
      expect(said({}, { humHz: 60 })).toContain('hums at 60 Hz')
      expect(said({}, { ringsS: 1.4 })).toContain('ring on')
      expect(said({ readings: [note, { ...note, doubt: 'rings' }] })).toContain('ring on')
      expect(said({}, { doubleStops: [{}] })).toContain('two strings')
      expect(said({}, { hasClipped: true })).toContain('too loud for the microphone')
    })
  })
})
