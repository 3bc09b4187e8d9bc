import { describe, expect, it } from 'vitest'
import { familyOf, type FamilyId } from '../instrument'
import {
  equal,
  fifths,
  just,
  note,
  noteName,
  transpose,
  INTERVALS,
  type Interval,
  type TuningSystem,
} from '../pitch'
import { AUDIBLE_STRENGTH, ringChecks, ringsOf } from './index'

function heard(family: FamilyId, interval: Interval, system: TuningSystem = fifths) {
  const { tuning } = familyOf(family)
  return tuning.map((open, i) =>
    ringsOf(tuning, i, transpose(open, interval), system)
      .filter((ring) => ring.strength >= AUDIBLE_STRENGTH)
      .map((ring) => `${ring.kind} ${noteName(ring.open)}`),
  )
}

describe('what rings (docs/trade.md § 2, common practice, no source)', () => {
  it('has the ring list of the violin’s first finger: A on G, E on D, and nothing on A and E', () => {
    const [g, d, a, e] = heard('violin', INTERVALS.majorSecond)
    expect(g?.[0]).toBe('octave A4')
    expect(d?.[0]).toBe('octave E5')
    expect([a, e]).toEqual([[], []])
  })

  it('has the third finger an octave above the next lower string, and the fourth in unison with the next', () => {
    expect(heard('violin', INTERVALS.perfectFourth).map((rings) => rings[0])).toEqual([
      undefined,
      'octave G3',
      'octave D4',
      'octave A4',
    ])
    expect(heard('violin', INTERVALS.perfectFifth).map((rings) => rings[0])).toEqual([
      'unison D4',
      'unison A4',
      'unison E5',
      undefined,
    ])
  })

  it('hears the fifth and the sixth partial of a low string where a tuning has them exactly', () => {
    // A five-string bass and its low B: F♯ two octaves and a fifth above it, D♯ two octaves and a third.
    const tuning = ['B0', 'E1', 'A1', 'D2', 'G2'].map(note)
    const kindOn = (stopped: string, system: TuningSystem) =>
      ringsOf(tuning, 4, note(stopped), system).find((ring) => ring.stringIndex === 0)
    expect(kindOn('F♯3', fifths)).toMatchObject({ kind: 'double_octave_fifth' })
    expect(kindOn('F♯3', fifths)!.strength).toBeCloseTo(1 / 6, 6)
    expect(kindOn('D♯3', just(note('B4')))!.strength).toBeCloseTo(1 / 5, 6)
    expect(kindOn('D♯3', fifths)!.strength).toBeLessThan(AUDIBLE_STRENGTH)
  })

  it('works for a bass in fourths: the third semitone pair A–D and D–G answer the fourth finger’s fifth semitone', () => {
    expect(heard('bass', INTERVALS.perfectFourth).slice(0, 3)).toEqual([
      expect.arrayContaining(['unison A1']),
      expect.arrayContaining(['unison D2']),
      expect.arrayContaining(['unison G2']),
    ])
  })

  it('tells that the just E of G is a comma short of open E, so that it does not ring', () => {
    const violin = familyOf('violin')
    const [ring] = ringsOf(violin.tuning, 1, note('E4'), just(note('G3')))
    expect(ring).toMatchObject({ kind: 'octave' })
    expect(ring?.offCents).toBeCloseTo(-21.506, 3)
    expect(ring?.strength).toBeLessThan(AUDIBLE_STRENGTH)
  })

  it('lists the string to lay a mark by first: unisons before octaves, exact ones before tempered', () => {
    const { tuning } = familyOf('violin')
    const first = ringChecks(
      tuning,
      tuning.map((o) => transpose(o, INTERVALS.majorSecond)),
      fifths,
    )
    expect(first.map((check) => check.stringIndex).sort()).toEqual([0, 1])
    const exact = ringsOf(tuning, 0, note('D4'), equal)[0]!
    expect(exact).toMatchObject({ kind: 'unison', offCents: 0, strength: 1 })
  })
})
