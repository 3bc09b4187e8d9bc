import { describe, expect, it } from 'vitest'
import type { FamilyId, Finger } from '../instrument'
import { NO_FAULTS, playExercise, seededSource, type PlayerFaults } from '../simulate'
import { landingFromMeter, type Landing } from '../take'
import { landed, shaped, strung } from '../testing'
import { judgeHand, type Verdict } from './index'

interface Options {
  readonly familyId?: FamilyId
  readonly lengthMm?: number
  readonly toleranceCents?: number
}
const takeOn = ({ familyId = 'violin', lengthMm = 328 }: Options) => ({
  stringing: strung(familyId, lengthMm),
  exercise: shaped(familyId),
})

type Heard = readonly (readonly [Finger | 0, number])[]

function judge(heard: Heard, options: Options = {}) {
  const take = takeOn(options)
  return judgeLandings(landed(take, heard), options)
}
const judgeLandings = (landings: readonly Landing[], options: Options = {}) =>
  judgeHand({ ...takeOn(options), landings, toleranceCents: options.toleranceCents ?? 10 })

const play = (seed: number, faults: PlayerFaults, options: Options = {}, times?: number) => {
  const { stringing, exercise } = takeOn(options)
  return playExercise(seededSource(seed), stringing, exercise, faults, times)
}

const cents = (...values: number[]): Heard => values.map((value, i) => [(i + 1) as Finger, value])

const findings = (verdict: Verdict) => ('findings' in verdict ? verdict.findings : [])

describe('a hand judged from one string (the faults are the handbook’s, common practice, no source)', () => {
  it('says nothing from two fingers, however often they are read', () => {
    const verdict = judge([...cents(-20, -20), ...cents(-21, -22)])
    expect(verdict).toMatchObject({ outcome: 'not_enough_notes', fingersHeard: [1, 2], fingersNeeded: 3 })
  })

  it('sees the worked example of the check: frame narrow at the fourth finger, the others well', () => {
    // half-size 284.5 mm; landings +3, +5, −4, −22 cents: 1 to 4 measures 2.4 mm less than 63.2
    const [frame, ...more] = findings(judge(cents(3, 5, -4, -22), { lengthMm: 284.5 }))
    expect(more).toEqual([])
    expect(frame).toMatchObject({ code: 'frame', where: 'last', shownBy: 4, fromFinger: 1, toFinger: 4 })
    expect(frame?.code === 'frame' && frame.errorMm).toBeCloseTo(-2.4, 1)
    expect(frame?.code === 'frame' && frame.expectedMm).toBeCloseTo((284.5 * 2) / 9, 9)
  })

  it('calls an untuned string by its name before it looks at the hand', () => {
    const verdict = judge([[0, 14], ...cents(15, 13, 14, 16)])
    expect(verdict).toMatchObject({ outcome: 'string_out_of_tune', cents: 14 })
  })

  it('tells a hand that moved from one that stretched, and knows whether the open string was heard', () => {
    const moved = judgeLandings(play(1, { ...NO_FAULTS, handOffsetMm: 3 }))
    expect(findings(moved)).toMatchObject([{ code: 'whole_hand', openStringHeard: false }])
    expect(Math.abs((findings(moved)[0] as { offsetMm: number }).offsetMm - 3)).toBeLessThan(0.1)
  })

  it('keeps quiet within the tolerance of the player', () => {
    expect(judge(cents(9, -8, 10, -9)).outcome).toBe('in_tune')
    expect(judge(cents(9, -8, 11, -9)).outcome).not.toBe('in_tune')
  })

  it('offers another single cause only while the notes leave it open', () => {
    const evenly = judge(cents(0, -8, -12, -18))
    expect(findings(evenly)[0]).toMatchObject({ code: 'frame', where: 'across' })
    const fourthAlone = judge(cents(0, 0, 0, -30))
    expect('alternatives' in fourthAlone && fourthAlone.alternatives).toEqual([])
  })

  it('names two causes together when one is not enough', () => {
    const landings = play(3, { ...NO_FAULTS, handOffsetMm: 4, fingerOffsetMm: { 2: -5 } })
    const codes = findings(judgeLandings(landings)).map((f) => f.code)
    expect(codes.sort()).toEqual(['finger', 'whole_hand'])
  })

  it('lists the fingers when nothing simple explains them', () => {
    const verdict = judge(cents(45, -40, 38, -42))
    expect(verdict.outcome).toBe('several')
    expect(findings(verdict)).toHaveLength(4)
  })
})

describe('known faults of simulated players are found with their size', () => {
  const faults: [string, PlayerFaults, string, (f: Record<string, unknown>) => number, number][] = [
    ['hand up', { ...NO_FAULTS, handOffsetMm: 3.5 }, 'whole_hand', (f) => f['offsetMm'] as number, 3.5],
    ['hand down', { ...NO_FAULTS, handOffsetMm: -3 }, 'whole_hand', (f) => f['offsetMm'] as number, -3],
    ['narrow', { ...NO_FAULTS, frameErrorMm: -6 }, 'frame', (f) => f['errorMm'] as number, -6],
    ['wide', { ...NO_FAULTS, frameErrorMm: 6 }, 'frame', (f) => f['errorMm'] as number, 6],
    ['4 short', { ...NO_FAULTS, fingerOffsetMm: { 4: -4 } }, 'frame', (f) => f['errorMm'] as number, -4],
    ['2 high', { ...NO_FAULTS, fingerOffsetMm: { 2: 4 } }, 'finger', (f) => f['offsetMm'] as number, 4],
  ]

  it.each(faults)('%s', (_, fault, code, sizeOf, expected) => {
    for (const [familyId, lengthMm] of [
      ['violin', 328],
      ['viola', 371],
      ['cello', 690],
      ['bass', 1050],
    ] as const) {
      const scale = lengthMm / 328
      const scaled = {
        ...fault,
        handOffsetMm: fault.handOffsetMm * scale,
        frameErrorMm: fault.frameErrorMm * scale,
        fingerOffsetMm: Object.fromEntries(
          Object.entries(fault.fingerOffsetMm).map(([finger, mm]) => [finger, mm * scale]),
        ),
        scatterCents: 3,
      }
      for (let seed = 1; seed <= 20; seed++) {
        const options = { familyId, lengthMm }
        const [finding, ...more] = findings(judgeLandings(play(seed, scaled, options, 3), options))
        expect(finding?.code, `${familyId} seed ${seed}`).toBe(code)
        expect(more).toEqual([])
        expect(
          Math.abs(sizeOf(finding as never) / scale - expected),
          `${familyId} seed ${seed}`,
        ).toBeLessThan(1)
      }
    }
  })

  it('gives intervals that hold the truth about nineteen times in twenty', () => {
    const trials = 400
    const held = Array.from({ length: trials }, (_, seed) => {
      const fault = { ...NO_FAULTS, handOffsetMm: 4, scatterCents: 4 }
      const [finding] = findings(judgeLandings(play(seed / trials, fault), { toleranceCents: 15 }))
      return finding?.code === 'whole_hand' && Math.abs(finding.offsetMm - 4) <= finding.plusMinusMm
    }).filter(Boolean).length
    expect(held / trials).toBeGreaterThan(0.9)
  })
})

it('takes off what a meter in equal temperament shows for a hand that is right', () => {
  const { stringing, exercise } = takeOn({})
  // fifths on A: B +4, C♯ +8, D −2, E +2 (multiples of 1.955); open A 0
  const shown = [0, 3.91, 7.82, -1.955, 1.955]
  for (const [i, shownCents] of shown.entries())
    expect(landingFromMeter(stringing, exercise.notes[i]!, shownCents).cents).toBeCloseTo(0, 2)
})

it('judges by the places of the instrument: pressed and rung places move the hand’s with them', () => {
  const exercise = shaped('violin')
  const finds = [{ stringIndex: 2, cents: 203.91, placeMm: 38, isTrusted: true }]
  const rung = strung('violin', 328, undefined, { finds })
  const plain = strung('violin', 328)
  const landings = landed({ stringing: rung, exercise }, cents(0, 0, 0, -30))
  const [onRung] = findings(judgeHand({ stringing: rung, exercise, landings, toleranceCents: 10 }))
  expect(onRung).toMatchObject({ code: 'frame', where: 'last' })
  const [first] = landings
  expect(first!.placeMm).toBeGreaterThan(328 / 9 + 0.5)
  expect(onRung?.code === 'frame' && onRung.expectedMm).not.toBeCloseTo((328 * 2) / 9, 3)
  const [onPlain] = findings(judgeHand({ stringing: plain, exercise, landings, toleranceCents: 10 }))
  expect(onPlain?.code === 'frame' && onPlain.expectedMm).toBeCloseTo((328 * 2) / 9, 9)
})

it('is asked string by string, and says so', () => {
  const { stringing, exercise } = takeOn({})
  const notes = [...exercise.notes, { ...exercise.notes[1]!, stringIndex: 1 }]
  const several = { stringing, exercise: { ...exercise, notes }, landings: [], toleranceCents: 10 }
  expect(() => judgeHand(several)).toThrow('string by string')
})
