import { describe, expect, it } from 'vitest'
import { exerciseOf } from '../exercise'
import { placeOnString } from '../instrument'
import { placementContext } from '../pattern'
import { faultyHand, seededSource, STEADY_HAND, type HandFaults } from '../simulate'
import {
  landingAtCents,
  landingOfReading,
  tapeOf,
  targetsOf,
  type Exercise,
  type HeardBeside,
  type Landing,
} from '../take'
import { landed, shaped, strung } from '../testing'
import { judgeTake, summaryOf, type EarlierTake, type JudgedTake } from './index'

const stringing = strung('violin', 328)
const hand = shaped('violin')

/** Rounds of the usual hand on A by a simulated player, each note as an ear would have told it. */
function played(
  seed: number,
  faults: Partial<HandFaults>,
  heard: (landing: number, index: number) => Partial<HeardBeside> = () => ({}),
  { rounds = 5, tapesCovered = false } = {},
): JudgedTake {
  const notes = Array.from({ length: rounds }, () => hand.notes.slice(1)).flat()
  const exercise: Exercise = { ...hand, notes }
  const at = faultyHand(
    seededSource(seed),
    stringing,
    exercise,
    { ...STEADY_HAND, scatterCents: 3, ...faults },
    { tapesCovered },
  )
  const landings = targetsOf(stringing, exercise).map((target, i, all) => {
    const cents = at(target, i / (all.length - 1))
    return landingAtCents(stringing, target, cents, {
      sigmaCents: 1,
      atMs: 500 * i,
      source: 'microphone',
      heard: { settledCents: cents, settledSigmaCents: 1, lastsMs: 800, confidence: 1, ...heard(cents, i) },
    })
  })
  return { stringing, exercise: hand, landings, toleranceCents: 10, tapesCovered }
}
const besideOf = (take: JudgedTake) => judgeTake(take).beside?.map(({ code }) => code) ?? []

describe('beside where the fingers land (docs/trade.md § 7, common practice, no source)', () => {
  it.each([
    [
      'landing far, settled near',
      { handOffsetMm: 3 },
      (c: number) => ({ settledCents: 0.2 * c }),
      ['ear_repairs'],
    ],
    ['landing far and left there', { handOffsetMm: 3 }, () => ({}), []],
    ['landing near', {}, (c: number) => ({ settledCents: 0.2 * c }), []],
    [
      'a pitch that wobbles while it is held',
      {},
      (_: number, i: number) => ({ wobbleCents: 9 + (i % 3) }),
      ['wobble'],
    ],
    ['a steady pitch', {}, () => ({ wobbleCents: 2 }), []],
    [
      'a vibrato that swings above the note',
      {},
      () => ({ vibratoWidthCents: 30, vibratoTopCents: 16 }),
      ['vibrato'],
    ],
    ['a vibrato down and back', {}, () => ({ vibratoWidthCents: 30, vibratoTopCents: 2 }), []],
  ] as const)('%s', (_, faults, heard, codes) => {
    expect(besideOf(played(7, faults, heard))).toEqual(codes)
  })

  it('names the finger whose pitch wobbles', () => {
    const take = played(8, {}, (_, i) => ({ wobbleCents: i % 4 === 2 ? 12 : 2 }))
    expect(judgeTake(take)).toMatchObject({
      outcome: 'in_tune',
      beside: [{ code: 'wobble', finger: 3, cents: 12 }],
    })
  })

  it('a finger that is right in sight of its tape and off without it depends on the tape', () => {
    const earlier: EarlierTake[] = [1, 2].map((seed) => ({
      ...played(seed, {}),
      daysAgo: 7 * seed,
      tapesCovered: false,
      likely: null,
    }))
    const covered = played(3, { withoutTapesCents: 25 }, undefined, { tapesCovered: true })
    const verdict = judgeTake({ ...covered, earlier })
    expect(verdict.beside).toMatchObject([{ code: 'without_tapes' }])
    // Off as well with the tapes in sight: no tape carries it.
    const also = earlier.map((one, i) => ({ ...one, ...played(i + 1, { handOffsetMm: 5 }) }) as EarlierTake)
    expect(besideOf({ ...covered, earlier: also })).toEqual([])
    expect(besideOf({ ...covered, tapesCovered: false, earlier })).toEqual([])
  })

  it('tells bias from scatter as soon as the notes allow: the interval of a spread by χ²', () => {
    const { scatter } = judgeTake(played(4, { handOffsetMm: 3, scatterCents: 5 }, undefined, { rounds: 8 }))
    expect(scatter!.lowCents).toBeLessThan(5)
    expect(scatter!.highCents).toBeGreaterThan(5)
    // 28 degrees of freedom: √(28 / 44.461) and √(28 / 15.308) of the estimate (χ² tables).
    expect(scatter!.lowCents / scatter!.cents).toBeCloseTo(Math.sqrt(28 / 44.461), 2)
    expect(scatter!.highCents / scatter!.cents).toBeCloseTo(Math.sqrt(28 / 15.308), 2)
    expect(judgeTake(played(4, {}, undefined, { rounds: 1 })).scatter).toBeUndefined()
  })
})

describe('before any blame of the hand', () => {
  const steady = (off: (finger: number) => number) =>
    landed(
      { stringing, exercise: hand },
      [1, 2, 3, 4, 1, 2, 3, 4].map((finger, i) => [finger as 1, off(finger) + (i % 2)]),
    )
  const judge = (landings: readonly Landing[], more: Partial<JudgedTake> = {}) =>
    judgeTake({ stringing, exercise: hand, landings, toleranceCents: 10, ...more })
  const places = targetsOf(stringing, hand).filter(({ finger }) => finger > 0)

  it('comes another pattern: one finger a half step from its note, the others where they should be', () => {
    expect(judge(steady((finger) => (finger === 2 ? -95 : 3)))).toMatchObject({
      outcome: 'other_exercise',
      finger: 2,
      halfSteps: -1,
    })
    expect(judge(steady(() => -95))).toMatchObject({ outcome: 'other_exercise', finger: null, halfSteps: -1 })
    expect(judge(steady((finger) => (finger < 3 ? -95 : 95))).outcome).not.toBe('other_exercise')
    expect(judge(steady((finger) => (finger === 2 ? -60 : 3))).outcome).toBe('explained')
    expect(judge(steady((finger) => (finger === 2 ? -130 : 3))).outcome).not.toBe('other_exercise')
    // Two fingers; but no frame that is far too wide.
    expect(judge(steady((finger) => (finger === 2 || finger === 3 ? -96 : 3)))).toMatchObject({
      outcome: 'other_exercise',
      finger: 2,
      with: [3],
    })
    const wide = [0, 33, 57, 88]
    expect(judge(steady((finger) => wide[finger - 1]!)).outcome).toBe('explained')
  })

  it('comes another pattern on one string of several, or another position there; one note is a slip', () => {
    const exercise = { ...hand, notes: [...shaped('violin', 1).notes, ...hand.notes] }
    const off = (of: (finger: number, string: number) => number, rounds = 3) => {
      const round = [1, 2].flatMap((string) =>
        ([1, 2, 3, 4] as const).map((finger) => [finger, of(finger, string), string] as const),
      )
      const heard = Array.from({ length: rounds }, (_, i) =>
        round.map(([finger, cents, string]) => [finger, cents + i, string] as const),
      )
      const landings = landed({ stringing, exercise }, heard.flat())
      return judgeTake({ stringing, exercise, landings, toleranceCents: 10 })
    }
    expect(off((finger, string) => (finger === 2 && string === 1 ? -100 : 2))).toMatchObject({
      outcome: 'other_exercise',
      finger: 2,
      string: 'D4',
      halfSteps: -1,
    })
    expect(off((_, string) => (string === 1 ? -98 : 2))).toMatchObject({
      outcome: 'other_exercise',
      finger: null,
      string: 'D4',
    })
    expect(off((finger, string) => (finger === 2 && string === 1 ? -100 : 2), 1).outcome).not.toBe(
      'other_exercise',
    )
    // Twice is a pattern; and so far off it is a fault, and no half step.
    const second = (cents: number) => (finger: number, string: number) =>
      finger === 2 && string === 1 ? cents : 2
    expect(off(second(-100), 2).outcome).toBe('other_exercise')
    expect(off(second(-125)).outcome).toBe('explained')
    expect(off((finger, string) => (finger === 2 && string === 1 ? -80 : 2))).toMatchObject({
      outcome: 'explained',
      findings: [{ code: 'place' }],
    })
  })

  it('comes a tape 3 mm off that its finger follows, and not one that it leaves aside', () => {
    const tapesMm = places.map(({ placeMm, finger }) => placeMm + (finger === 3 ? 3 : 0))
    const follows = judge(
      steady((finger) => (finger === 3 ? 21 : 0)),
      { tapesMm },
    )
    expect(follows).toMatchObject({ outcome: 'tape_misplaced', finger: 3, tapeMm: tapesMm[2] })
    expect(
      judge(
        steady(() => 0),
        { tapesMm },
      ).outcome,
    ).toBe('in_tune')
    expect(
      judge(
        steady((finger) => (finger === 4 ? -21 : 0)),
        { tapesMm },
      ),
    ).toMatchObject({
      outcome: 'explained',
      findings: [{ code: 'frame' }],
    })
  })

  it('a tape takes no blame for more than its own cents: the rest is the hand’s, the tape beside it', () => {
    const off = (finger: number, mm: number) =>
      places.map((place) => place.placeMm + (place.finger === finger ? mm : 0))
    // A tape 1.1 mm too high, the whole hand 30 cents sharp: the hand.
    for (const finger of [1, 2, 3, 4] as const) {
      const verdict = judge(
        steady(() => 30),
        { tapesMm: off(finger, 1.1) },
      )
      expect(verdict).toMatchObject({ outcome: 'explained', findings: [{ code: 'whole_hand' }] })
      expect(verdict.beside).toBeUndefined()
    }
    // A finger that follows its tape by 2 mm out of a hand that is sharp: both, and no finger.
    const tapesMm = off(2, 2)
    const cents = tapeOf(stringing, places[1]!, tapesMm)!.offCents
    const both = judge(
      steady((finger) => 30 + (finger === 2 ? cents : 0)),
      { tapesMm },
    )
    expect(both).toMatchObject({
      outcome: 'explained',
      findings: [{ code: 'whole_hand' }],
      beside: [{ code: 'tape', finger: 2, tapeMm: tapesMm[1] }],
    })
    expect('findings' in both && both.findings).toHaveLength(1)
    // A finger twice as far off as its tape does not follow it.
    expect(
      judge(
        steady((finger) => (finger === 2 ? 2.2 * cents : 0)),
        { tapesMm },
      ),
    ).toMatchObject({ outcome: 'explained', findings: [{ code: 'finger', finger: 2 }] })
  })

  it('a tape is told from half a tolerance off, and five cents; and if its finger goes most of the way to it', () => {
    const [, , third] = places
    const told = (toleranceCents: number, tapeCents: number, fingerCents = tapeCents) => {
      const tapeMm = placeOnString(stringing, third!.stringIndex, third!.cents + tapeCents)
      const verdict = judge(
        steady((finger) => (finger === 3 ? fingerCents : 0)),
        { toleranceCents, tapesMm: places.map((place) => (place === third ? tapeMm : place.placeMm)) },
      )
      return (
        verdict.outcome === 'tape_misplaced' || verdict.beside?.some(({ code }) => code === 'tape') === true
      )
    }
    expect([told(8, 4.4), told(8, 5.8)]).toEqual([false, true])
    expect([told(20, 8.5), told(20, 11.5)]).toEqual([false, true])
    expect([told(10, 20, 8), told(10, 20, 12)]).toEqual([false, true])
    // And not far beyond it.
    expect([told(10, 12, 12 * 1.4), told(10, 12, 12 * 1.7)]).toEqual([true, false])
    // Two fingers whose tapes lie well say where the hand is.
    const two = places.map((place, i) =>
      i < 2 ? place.placeMm : placeOnString(stringing, place.stringIndex, place.cents + 25),
    )
    expect(
      judge(
        steady(() => 25),
        { tapesMm: two },
      ),
    ).toMatchObject({ findings: [{ code: 'whole_hand' }] })
  })

  it('a tape takes the blame from a whole tolerance off, and where its finger lands on it; else it stands beside', () => {
    const [, , third] = places
    const outcomeOf = (tapeCents: number, fingerCents: number) => {
      const tapeMm = placeOnString(stringing, third!.stringIndex, third!.cents + tapeCents)
      const tapesMm = places.map((place) => (place === third ? tapeMm : place.placeMm))
      return judge(
        steady((finger) => (finger === 3 ? fingerCents : 0)),
        { tapesMm },
      ).outcome
    }
    const isBlamed = (tapeCents: number, fingerCents: number) =>
      outcomeOf(tapeCents, fingerCents) === 'tape_misplaced'
    expect([isBlamed(9.5, 9.5), isBlamed(10.5, 10.5)]).toEqual([false, true])
    expect([isBlamed(24, 17), isBlamed(24, 20), isBlamed(24, 29), isBlamed(24, 32)]).toEqual([
      false,
      true,
      true,
      false,
    ])
  })

  it('tapes that lie wrong alike are all told, the furthest off first', () => {
    const tapesMm = places.map(({ placeMm }) => placeMm + 3)
    const offs = places.map((place) => tapeOf(stringing, place, tapesMm)!.offCents)
    const verdict = judge(
      steady((finger) => offs[finger - 1]!),
      { tapesMm },
    )
    expect(verdict).toMatchObject({ outcome: 'tape_misplaced', finger: 4 })
    expect('others' in verdict && verdict.others?.map(({ finger }) => finger)).toEqual([3, 2, 1])
  })
})

describe('two notes that are one by ear', () => {
  const made = (kind: 'fourth' | 'octave', family: 'violin' | 'cello' = 'violin') => {
    const on = strung(family, family === 'violin' ? 328 : 690)
    return exerciseOf(placementContext(on.family, on.tuning), { kind, stringIndex: 1 })
  }
  const judge = (kind: 'fourth' | 'octave', upper: readonly number[], partner: readonly number[]) => {
    const exercise = made(kind)
    if (!exercise.ok) throw new Error(exercise.code)
    const { notes } = exercise.exercise
    const landingsOf = (isUpper: boolean, all: readonly number[]) =>
      all.map((cents) => {
        const expected = notes.find(({ finger }) => (finger === 4) === isUpper)!
        return landingAtCents(stringing, expected, cents, { sigmaCents: 2, atMs: null, source: 'meter' })
      })
    const landings = [...landingsOf(true, upper), ...landingsOf(false, partner)]
    return judgeTake({ stringing, exercise: exercise.exercise, landings, toleranceCents: 10 })
  }

  it('are 4 on D and the open A; 1 on D and 4 on A, an octave; and no such pair on a cello', () => {
    const fourth = made('fourth')
    expect(fourth.ok && fourth.exercise.notes.slice(0, 2)).toMatchObject([
      { stringIndex: 2, finger: 0, note: { letter: 'A', octave: 4 } },
      { stringIndex: 1, finger: 4, note: { letter: 'A', octave: 4 } },
    ])
    const octave = made('octave')
    expect(octave.ok && octave.exercise.notes.slice(0, 2)).toMatchObject([
      { stringIndex: 1, finger: 1, note: { letter: 'E', octave: 4 } },
      { stringIndex: 2, finger: 4, note: { letter: 'E', octave: 5 } },
    ])
    expect(made('fourth', 'cello')).toEqual({ ok: false, code: 'no_hand' })
  })

  it('are held against each other, whatever the instrument is tuned to', () => {
    expect(judge('fourth', [-33, -35, -34], [-20, -20, -20])).toMatchObject({
      outcome: 'matched',
      isOff: true,
    })
    const alike = judge('fourth', [-21, -19, -20], [-20, -20, -21])
    expect(alike).toMatchObject({ outcome: 'matched', of: 'fourth', isOff: false })
    expect(judge('octave', [12], [4])).toMatchObject({ isOff: null })
    expect(judge('octave', [12], [])).toMatchObject({ outcome: 'not_enough_notes', more: 1 })
  })
})

describe('what an eye and a ruler are worth', () => {
  const all = (side: 'behind' | 'on' | 'past', times: number) =>
    Array.from({ length: times }, () => hand.notes.slice(1))
      .flat()
      .map((expected) => landingOfReading(stringing, expected, { side: expected.finger === 4 ? side : 'on' }))
  const judge = (landings: readonly Landing[]) =>
    judgeTake({ stringing, exercise: hand, landings, toleranceCents: 20 })

  it('however well words agree, few of them tell less than as many numbers', () => {
    const seen = all('behind', 2)
    const numbers = seen.map((l) => ({ ...l, sigmaCents: 1, source: 'meter' as const }))
    // A meter that shows the same twice is written twice: a cent apart it is news.
    const metered = numbers.map((l, i) => ({ ...l, cents: l.cents + (i % 2) }))
    expect(judge(seen).outcome).toBe('not_enough_notes')
    expect(judge(metered).outcome).toBe('explained')
    expect(judge(all('behind', 8))).toMatchObject({
      outcome: 'explained',
      findings: [{ code: 'frame', where: 'last' }],
    })
    expect(judge(all('on', 8)).outcome).toBe('in_tune')
    // Words that agree are no ruler: the size has an eye’s ±, and of the finger’s own scatter nothing is said.
    const { findings, scatter } = judge(all('behind', 8)) as unknown as {
      findings: { plusMinusMm: number }[]
      scatter?: unknown
    }
    expect(findings[0]!.plusMinusMm).toBeGreaterThan(0.8)
    expect(scatter).toBeUndefined()
  })
})

it('what is seen or measured of a place is the same, whatever its string is tuned to', () => {
  const measured = (openCents: number) =>
    judgeTake({
      stringing,
      exercise: hand,
      toleranceCents: 10,
      landings: [
        ...landed({ stringing, exercise: hand }, [[0, openCents]]),
        ...Array.from({ length: 3 }, (_, i) =>
          hand.notes
            .slice(1)
            .map((expected) => landingOfReading(stringing, expected, { offMm: 4 + 0.2 * i })),
        ).flat(),
      ],
    }).fingers.map(({ meanCents }) => Math.round(meanCents))
  expect(measured(4)).toEqual(measured(0))
})

describe('a take in numbers', () => {
  it('says bias, scatter, frame and drift of what was played', () => {
    const steady = summaryOf(played(1, { frameErrorMm: -6, scatterCents: 4 }, undefined, { rounds: 10 }))!
    expect(steady.frameMm).toBeCloseTo(-6, 0)
    expect(steady.scatterCents).toBeGreaterThan(3)
    expect(steady.scatterCents).toBeLessThan(5.2)
    expect(steady.count).toBe(40)
    const creeping = summaryOf(played(2, { creepMm: 4, scatterCents: 1 }, undefined, { rounds: 10 }))!
    // 4 mm where a millimetre is worth 5.3 to 8 cents
    expect(creeping.driftCents).toBeGreaterThan(18)
    expect(creeping.driftCents).toBeLessThan(30)
    expect(summaryOf({ ...played(1, {}), landings: [] })).toBeUndefined()
  })
})
