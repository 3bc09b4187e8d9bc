import { Interval as TonalInterval, Note as TonalNote } from 'tonal'
import { describe, expect, it } from 'vitest'
import {
  A4_HZ,
  centsAboveOpen,
  centsToRatio,
  equal,
  fifths,
  fifthsNumber,
  frequencyHz,
  INTERVALS,
  just,
  meterCents,
  midiNumber,
  note,
  noteName,
  parseNote,
  PURE_FIFTH_CENTS,
  SYNTONIC_COMMA_CENTS,
  transpose,
} from './index'

const SPELLINGS = ['C', 'D', 'E', 'F', 'G', 'A', 'B'].flatMap((letter) =>
  ['bb', 'b', '', '#', '##'].flatMap((sign) => [0, 2, 4, 7].map((octave) => `${letter}${sign}${octave}`)),
)

describe('notes, against the tonal library', () => {
  it('numbers and names every spelling as tonal does', () => {
    expect(SPELLINGS).toHaveLength(140)
    for (const name of SPELLINGS) {
      const n = note(name)
      expect(midiNumber(n), name).toBe(TonalNote.midi(name) ?? midiBelowZero(name))
      expect(noteName(n)).toBe(name.replaceAll('b', '♭').replaceAll('#', '♯'))
      expect(frequencyHz(equal.centsAboveA4(n)), name).toBeCloseTo(TonalNote.freq(name) ?? NaN, 6)
    }
  })

  it('spells every interval as tonal does', () => {
    const names = { majorSecond: '2M', minorThird: '3m', majorThird: '3M', perfectFourth: '4P' } as const
    for (const open of ['G3', 'D4', 'A4', 'E5', 'C2', 'Bb1', 'F#3'])
      for (const [ours, theirs] of Object.entries(names)) {
        const stopped = transpose(note(open), INTERVALS[ours as keyof typeof names])
        expect(noteName(stopped)).toBe(TonalNote.transpose(open, theirs).replace('b', '♭').replace('#', '♯'))
      }
    expect(TonalInterval.semitones('5P')).toBe(INTERVALS.perfectFifth.semitones)
  })

  it('reads both ways of writing accidentals and refuses the rest', () => {
    expect(parseNote('B♭3')).toEqual(parseNote('bb3'))
    for (const text of ['', 'H3', 'A', 'A#', 'A#b3', 'A10', '4A'])
      expect(parseNote(text), text).toBeUndefined()
  })
})

// tonal leaves notes below MIDI 0 without a number; the relation is linear (MIDI 1.0 Detailed Specification)
function midiBelowZero(name: string): number {
  return (TonalNote.midi(name.replace(/\d/, '4')) ?? NaN) - 48
}

describe('reference pitch', () => {
  it('is ISO 16:1975, A4 = 440 Hz, and MIDI 69', () => {
    expect(A4_HZ).toBe(440)
    expect(frequencyHz(0)).toBe(440)
    expect(midiNumber(note('A4'))).toBe(69)
    // MIDI tuning standard: f = 440 · 2^((m − 69)/12); middle C is 261.6256 Hz
    expect(frequencyHz(equal.centsAboveA4(note('C4')))).toBeCloseTo(261.6256, 4)
  })
})

describe('tuning systems', () => {
  const cents = (system: typeof fifths, from: string, to: string) =>
    centsAboveOpen(system, note(from), note(to))

  it('has the published cents of pure intervals (Ellis in Helmholtz, On the Sensations of Tone)', () => {
    expect(PURE_FIFTH_CENTS).toBeCloseTo(701.955, 3)
    expect(SYNTONIC_COMMA_CENTS).toBeCloseTo(21.506, 3)
    expect(centsToRatio(cents(fifths, 'D4', 'E4'))).toBeCloseTo(9 / 8, 12)
    expect(centsToRatio(cents(fifths, 'D4', 'F#4'))).toBeCloseTo(81 / 64, 12)
    expect(centsToRatio(cents(fifths, 'D4', 'G4'))).toBeCloseTo(4 / 3, 12)
    expect(centsToRatio(cents(fifths, 'E1', 'A1'))).toBeCloseTo(4 / 3, 12)
  })

  it('puts every just interval on its keynote at its whole-number ratio (Helmholtz, appendix XX)', () => {
    const ratios: Record<string, number> = {
      Db5: 16 / 15,
      D5: 9 / 8,
      Eb5: 6 / 5,
      E5: 5 / 4,
      F5: 4 / 3,
      'F#5': 45 / 32,
      G5: 3 / 2,
      Ab5: 8 / 5,
      A5: 5 / 3,
      Bb5: 9 / 5,
      B5: 15 / 8,
      C6: 2,
      'C#5': 25 / 24,
    }
    const onC = just(note('C4'))
    const keynote = onC.centsAboveA4(note('C5'))
    for (const [name, ratio] of Object.entries(ratios))
      expect(centsToRatio(onC.centsAboveA4(note(name)) - keynote), name).toBeCloseTo(ratio, 12)
  })

  it('holds the ringing first finger on D a comma above the one that is pure with open G (docs/trade.md § 2, derived)', () => {
    expect(cents(fifths, 'D4', 'E4') - cents(just(note('G3')), 'D4', 'E4')).toBeCloseTo(21.506, 3)
    // the same E is a pure major sixth 5:3 above the open G
    expect(
      centsToRatio(just(note('G3')).centsAboveA4(note('E4')) - fifths.centsAboveA4(note('G3'))),
    ).toBeCloseTo(5 / 3, 12)
  })

  it('says what an equal-tempered meter shows for strings in pure fifths from A', () => {
    // n fifths of 701.955 against n · 700: G −3.91, E +1.955, C −5.865
    expect(meterCents(fifths, note('G3'), 'open')).toBeCloseTo(-3.91, 2)
    expect(meterCents(fifths, note('E5'), 'open')).toBeCloseTo(1.955, 3)
    expect(meterCents(fifths, note('C2'), 'open')).toBeCloseTo(-5.865, 3)
    expect(meterCents(equal, note('C2'))).toBe(0)
  })

  it('knows F♯ from G♭', () => {
    expect(fifthsNumber(note('F#4')) - fifthsNumber(note('Gb4'))).toBe(12)
    // the Pythagorean comma, 23.46 cents
    expect(fifths.centsAboveA4(note('F#4')) - fifths.centsAboveA4(note('Gb4'))).toBeCloseTo(23.46, 2)
  })
})
