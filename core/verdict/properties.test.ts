import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, shapeOf, type Finger } from '../instrument'
import { fifths } from '../pitch'
import { centsPerMm } from '../stop'
import { handTargets } from '../tape'
import { singleCauses } from './causes'
import { fitCauses } from './fit'
import { judgeHand, type FingerSummary, type HandCheck, type Reading, type Verdict } from './index'

const SEED = { seed: 7, numRuns: 300 }

const anyHand = fc
  .record({
    familyId: fc.constantFrom(...FAMILY_IDS),
    shape: fc.nat(3),
    size: fc.double({ min: 0.5, max: 1.05, noNaN: true }),
    stringIndex: fc.nat(3),
    toleranceCents: fc.integer({ min: 3, max: 40 }),
  })
  .map(({ familyId, shape, size, stringIndex, toleranceCents }) => {
    const family = familyOf(familyId)
    const lengthMm = family.board.stringLengthMm * size
    const chosen = family.shapes[shape % family.shapes.length]!
    return {
      lengthMm,
      targets: handTargets(lengthMm, family.tuning[stringIndex]!, chosen, fifths),
      toleranceCents,
    }
  })

const anyCheck: fc.Arbitrary<HandCheck> = anyHand.chain((hand) =>
  fc
    .array(
      fc.record({
        finger: fc.constantFrom<(Finger | 0)[]>(0, ...hand.targets.map((t) => t.finger)),
        cents: fc.integer({ min: -99, max: 99 }),
      }),
      { maxLength: 24 },
    )
    .map((readings) => ({ ...hand, readings })),
)

const sizes = (verdict: Verdict) =>
  'findings' in verdict ? verdict.findings.map((f) => (f.code === 'frame' ? f.errorMm : f.offsetMm)) : []

describe('a verdict, whatever was read', () => {
  it('never fails, never says a number that is none, and never guesses from fewer than three fingers', () => {
    fc.assert(
      fc.property(anyCheck, (check) => {
        const verdict = judgeHand(check)
        const heard = new Set(check.readings.map((r) => r.finger).filter((finger) => finger !== 0))
        if (heard.size < 3) expect(['not_enough_notes', 'string_out_of_tune']).toContain(verdict.outcome)
        for (const size of sizes(verdict)) expect(Number.isFinite(size)).toBe(true)
        if (verdict.outcome === 'explained') expect(verdict.findings.length).toBeGreaterThan(0)
      }),
      SEED,
    )
  })

  it('does not depend on the order in which the notes were read', () => {
    fc.assert(
      fc.property(anyCheck, (check) => {
        const backwards = judgeHand({ ...check, readings: check.readings.toReversed() })
        const verdict = judgeHand(check)
        expect(backwards.outcome).toBe(verdict.outcome)
        sizes(verdict).forEach((size, i) => expect(sizes(backwards)[i]).toBeCloseTo(size, 9))
      }),
      SEED,
    )
  })

  it('is the same hand on an instrument of another size: every mm grows with the string', () => {
    fc.assert(
      fc.property(anyCheck, fc.double({ min: 0.5, max: 2, noNaN: true }), (check, factor) => {
        const larger = judgeHand({
          ...check,
          lengthMm: check.lengthMm * factor,
          targets: check.targets.map((t) => ({ ...t, placeMm: t.placeMm * factor })),
        })
        const verdict = judgeHand(check)
        expect(larger.outcome).toBe(verdict.outcome)
        sizes(verdict).forEach((size, i) => expect(sizes(larger)[i]).toBeCloseTo(size * factor, 6))
      }),
      SEED,
    )
  })

  it('is in tune exactly when every finger’s mean is within the tolerance', () => {
    fc.assert(
      fc.property(anyCheck, (check) => {
        const readings = check.readings.filter((r) => r.finger !== 0)
        const fingers = [...new Set(readings.map((r) => r.finger))]
        fc.pre(fingers.length >= 3)
        const worst = Math.max(
          ...fingers.map((finger) => {
            const own = readings.filter((r) => r.finger === finger)
            return Math.abs(own.reduce((sum, r) => sum + r.cents, 0) / own.length)
          }),
        )
        const verdict = judgeHand({ ...check, readings })
        expect(verdict.outcome === 'in_tune').toBe(worst <= check.toleranceCents)
      }),
      SEED,
    )
  })

  it('looks at no finger while the open string is off', () => {
    fc.assert(
      fc.property(anyCheck, fc.integer({ min: 6, max: 99 }), (check, cents) => {
        const readings: Reading[] = [
          ...check.readings.filter((r) => r.finger !== 0),
          { finger: 0, cents: -cents },
        ]
        expect(judgeHand({ ...check, readings })).toMatchObject({
          outcome: 'string_out_of_tune',
          cents: -cents,
        })
      }),
      SEED,
    )
  })
})

it('fits one cause and two as ml-matrix’s least squares does', () => {
  const family = familyOf('violin')
  const lengthMm = 328
  const targets = handTargets(lengthMm, family.tuning[1]!, shapeOf(family, 'first')!, fifths)
  const errorsMm = [2.3, -1.1, 4.2, -3.7]
  const counts = [1, 4, 2, 3]
  const fingers: FingerSummary[] = targets.map((target, i) => ({
    finger: target.finger,
    target,
    count: counts[i]!,
    meanMm: errorsMm[i]!,
    meanCents: errorsMm[i]! * centsPerMm(lengthMm, target.placeMm),
  }))
  const check = { lengthMm, targets, readings: [], toleranceCents: 10 }
  const causes = singleCauses(check, fingers, true)
  // rows weighted by the root of how often each finger was heard
  const row = (i: number, value: number) =>
    Math.sqrt(counts[i]!) * value * centsPerMm(lengthMm, targets[i]!.placeMm)
  const heard = Matrix.columnVector(errorsMm.map((mm, i) => row(i, mm)))
  let compared = 0
  for (const [first, a] of causes.entries())
    for (const b of [undefined, ...causes.slice(first + 1)]) {
      const pair = b ? ([a, b] as const) : ([a] as const)
      const ours = fitCauses(check, fingers, pair, 4)
      if (!ours) continue
      const design = new Matrix(targets.map((_, i) => pair.map((cause) => row(i, cause.shift[i] ?? 0))))
      const solution = solve(design, heard, true)
      const left = Matrix.sub(heard, design.mmul(solution))
      expect(ours.chiSquare).toBeCloseTo(left.norm('frobenius') ** 2 / 4 ** 2, 6)
      compared++
    }
  expect(compared).toBeGreaterThan(20)
})

it('cannot tell apart two causes that move the fingers alike, and says so', () => {
  const family = familyOf('cello')
  const targets = handTargets(690, family.tuning[2]!, shapeOf(family, 'first')!, fifths)
  const fingers = targets.map((target) => ({
    finger: target.finger,
    target,
    count: 1,
    meanMm: 1,
    meanCents: 3,
  }))
  const check = { lengthMm: 690, targets, readings: [], toleranceCents: 10 }
  const [wholeHand] = singleCauses(check, fingers, false)
  expect(fitCauses(check, fingers, [wholeHand!, wholeHand!], 4)).toBeUndefined()
})
