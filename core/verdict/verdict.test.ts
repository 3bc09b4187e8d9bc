import { describe, expect, it } from 'vitest'
import { familyOf, shapeOf, type FamilyId } from '../instrument'
import { fifths } from '../pitch'
import { NO_FAULTS, playHand, seededSource, type PlayerFaults } from '../simulate'
import { handTargets } from '../tape'
import { checkFromMeter, judgeHand, type Reading, type Verdict } from './index'

function targetsOf(familyId: FamilyId, lengthMm: number, stringIndex = 2) {
  const family = familyOf(familyId)
  return handTargets(lengthMm, family.tuning[stringIndex]!, shapeOf(family, family.defaultShapeId)!, fifths)
}

function judge(
  readings: Reading[],
  options: { familyId?: FamilyId; lengthMm?: number; toleranceCents?: number } = {},
) {
  const { familyId = 'violin', lengthMm = 328, toleranceCents = 10 } = options
  return judgeHand({ lengthMm, targets: targetsOf(familyId, lengthMm), readings, toleranceCents })
}

const cents = (...values: number[]): Reading[] =>
  values.map((value, i) => ({ finger: (i + 1) as Reading['finger'], cents: value }))

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
    const verdict = judge([{ finger: 0, cents: 14 }, ...cents(15, 13, 14, 16)])
    expect(verdict).toMatchObject({ outcome: 'string_out_of_tune', cents: 14 })
  })

  it('tells a hand that moved from one that stretched, and knows whether the open string was heard', () => {
    const moved = judge(
      playHand(seededSource(1), 328, targetsOf('violin', 328), { ...NO_FAULTS, handOffsetMm: 3 }),
    )
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
    const readings = playHand(seededSource(3), 328, targetsOf('violin', 328), {
      ...NO_FAULTS,
      handOffsetMm: 4,
      fingerOffsetMm: { 2: -5 },
    })
    const codes = findings(judge(readings)).map((f) => f.code)
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
        const readings = playHand(seededSource(seed), lengthMm, targetsOf(familyId, lengthMm), scaled, 3)
        const [finding, ...more] = findings(judge(readings, { familyId, lengthMm }))
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
    const targets = targetsOf('violin', 328)
    const trials = 400
    const held = Array.from({ length: trials }, (_, seed) => {
      const fault = { ...NO_FAULTS, handOffsetMm: 4, scatterCents: 4 }
      const [finding] = findings(
        judge(playHand(seededSource(seed / trials), 328, targets, fault), { toleranceCents: 15 }),
      )
      return finding?.code === 'whole_hand' && Math.abs(finding.offsetMm - 4) <= finding.plusMinusMm
    }).filter(Boolean).length
    expect(held / trials).toBeGreaterThan(0.9)
  })
})

it('takes off what a meter in equal temperament shows for a hand that is right', () => {
  const violin = familyOf('violin')
  const shape = shapeOf(violin, 'first')!
  // fifths on A: B +4, C♯ +8, D −2, E +2 (multiples of 1.955); open A 0
  const shown = [0, 3.91, 7.82, -1.955, 1.955].map((shownCents, i) => ({
    finger: i as Reading['finger'],
    shownCents,
  }))
  const check = checkFromMeter({
    lengthMm: 328,
    open: violin.tuning[2]!,
    shape,
    system: fifths,
    shown,
    toleranceCents: 10,
  })
  for (const reading of check.readings) expect(reading.cents).toBeCloseTo(0, 2)
})
