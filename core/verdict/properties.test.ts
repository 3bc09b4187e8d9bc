import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type Finger } from '../instrument'
import { centsPerMm } from '../stop'
import { shapeExercise, targetsOf } from '../take'
import { landed, shaped, strung } from '../testing'
import { singleCauses } from './causes'
import { explain } from './explain'
import { judgeHand, type FingerSummary, type JudgedTake, type Verdict } from './index'
import type { FingerTarget, HeardString } from './types'

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
    const chosen = family.shapes[shape % family.shapes.length]!
    return {
      stringing: strung(familyId, family.board.stringLengthMm * size),
      exercise: shapeExercise(family.tuning, stringIndex, chosen),
      toleranceCents,
    }
  })

const anyTake: fc.Arbitrary<JudgedTake> = anyHand.chain((hand) =>
  fc
    .array(
      fc.tuple(
        fc.constantFrom<(Finger | 0)[]>(...hand.exercise.notes.map((n) => n.finger)),
        fc.integer({ min: -99, max: 99 }),
      ),
      { maxLength: 24 },
    )
    .map((heard) => ({ ...hand, landings: landed(hand, heard) })),
)

const sizes = (verdict: Verdict) =>
  'findings' in verdict ? verdict.findings.map((f) => (f.code === 'frame' ? f.errorMm : f.offsetMm)) : []

describe('a verdict, whatever was read', () => {
  it('never fails, never says a number that is none, and never guesses from fewer than three fingers', () => {
    fc.assert(
      fc.property(anyTake, (take) => {
        const verdict = judgeHand(take)
        const heard = new Set(take.landings.map((l) => l.finger).filter((finger) => finger !== 0))
        if (heard.size < 3) expect(['not_enough_notes', 'string_out_of_tune']).toContain(verdict.outcome)
        for (const size of sizes(verdict)) expect(Number.isFinite(size)).toBe(true)
        if (verdict.outcome === 'explained') expect(verdict.findings.length).toBeGreaterThan(0)
      }),
      SEED,
    )
  })

  it('does not depend on the order in which the notes were read', () => {
    fc.assert(
      fc.property(anyTake, (take) => {
        const backwards = judgeHand({ ...take, landings: take.landings.toReversed() })
        const verdict = judgeHand(take)
        expect(backwards.outcome).toBe(verdict.outcome)
        sizes(verdict).forEach((size, i) => expect(sizes(backwards)[i]).toBeCloseTo(size, 9))
      }),
      SEED,
    )
  })

  it('is the same hand on an instrument of another size: every mm grows with the string', () => {
    fc.assert(
      fc.property(anyTake, fc.double({ min: 0.5, max: 2, noNaN: true }), (take, factor) => {
        const { family, lengthMm } = take.stringing
        const larger = judgeHand({ ...take, stringing: strung(family.id, lengthMm * factor) })
        const verdict = judgeHand(take)
        expect(larger.outcome).toBe(verdict.outcome)
        sizes(verdict).forEach((size, i) => expect(sizes(larger)[i]).toBeCloseTo(size * factor, 6))
      }),
      SEED,
    )
  })

  it('is in tune exactly when every finger’s mean is within the tolerance', () => {
    fc.assert(
      fc.property(anyTake, (take) => {
        const landings = take.landings.filter((l) => l.finger !== 0)
        const fingers = [...new Set(landings.map((l) => l.finger))]
        fc.pre(fingers.length >= 3)
        const worst = Math.max(
          ...fingers.map((finger) => {
            const own = landings.filter((l) => l.finger === finger)
            return Math.abs(own.reduce((sum, l) => sum + l.cents, 0) / own.length)
          }),
        )
        const verdict = judgeHand({ ...take, landings })
        expect(verdict.outcome === 'in_tune').toBe(worst <= take.toleranceCents)
      }),
      SEED,
    )
  })

  it('looks at no finger while the open string is off', () => {
    fc.assert(
      fc.property(anyTake, fc.integer({ min: 6, max: 99 }), (take, cents) => {
        const landings = [...take.landings.filter((l) => l.finger !== 0), ...landed(take, [[0, -cents]])]
        expect(judgeHand({ ...take, landings })).toMatchObject({
          outcome: 'string_out_of_tune',
          cents: -cents,
        })
      }),
      SEED,
    )
  })
})

function heardOn(familyId: 'violin' | 'cello', lengthMm: number, stringIndex: number) {
  const stringing = strung(familyId, lengthMm)
  const [, ...targets] = targetsOf(stringing, shaped(familyId, stringIndex)) as FingerTarget[]
  return { stringing, stringIndex, targets, sigmaCents: 4 }
}

it('sizes one cause and two as ml-matrix’s least squares does', () => {
  const lengthMm = 328
  const string = heardOn('violin', lengthMm, 1)
  const { targets } = string
  const errorsMm = [2.3, -1.1, 4.2, -3.7]
  const counts = [1, 4, 2, 3]
  const fingers: FingerSummary[] = targets.map((target, i) => ({
    finger: target.finger,
    target,
    count: counts[i]!,
    meanMm: errorsMm[i]!,
    meanCents: errorsMm[i]! * centsPerMm(lengthMm, target.placeMm),
  }))
  const heard: HeardString = { ...string, fingers }
  const causes = singleCauses(heard, true)
  // rows weighted by the root of how often each finger was heard
  const row = (i: number, value: number) =>
    Math.sqrt(counts[i]!) * value * centsPerMm(lengthMm, targets[i]!.placeMm)
  const wanted = Matrix.columnVector(errorsMm.map((mm, i) => row(i, mm)))
  let compared = 0
  for (const [first, a] of causes.entries())
    for (const b of [undefined, ...causes.slice(first + 1)]) {
      const pair = b ? ([a, b] as const) : ([a] as const)
      const ours = explain(heard, pair)
      if (!ours) continue
      const design = new Matrix(targets.map((_, i) => pair.map((cause) => row(i, cause.shift[i] ?? 0))))
      const solution = solve(design, wanted, true)
      const left = Matrix.sub(wanted, design.mmul(solution))
      expect(ours.chiSquare).toBeCloseTo(left.norm('frobenius') ** 2 / 4 ** 2, 6)
      compared++
    }
  expect(compared).toBeGreaterThan(20)
})

it('cannot tell apart two causes that move the fingers alike, and says so', () => {
  const string = heardOn('cello', 690, 2)
  const fingers = string.targets.map((target) => ({
    finger: target.finger,
    target,
    count: 1,
    meanMm: 1,
    meanCents: 3,
  }))
  const heard: HeardString = { ...string, fingers }
  const [wholeHand] = singleCauses(heard, false)
  expect(explain(heard, [wholeHand!, wholeHand!])).toBeUndefined()
})
