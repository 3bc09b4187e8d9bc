import fc from 'fast-check'
import { determinant, inverse, Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type Digit } from '../instrument'
import { chiSquare, logSum, normalBelow } from '../stats'
import { shapeExercise } from '../take'
import { landed, shaped, strung } from '../testing'
import { evidenceOf } from './evidence'
import { judgeTake, type JudgedTake, type Verdict } from './index'
import { candidatesOf, rowsOf } from './candidates'
import { HANGINGS, USUALLY } from './noise'
import { faultSizes, usualOf } from './prior'
import { productsOf } from './products'
import { leftOver, sizesOf } from './least-squares'
import { weigh } from './weigh'

const SEED = { seed: 7, numRuns: 150 }

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
        fc.constantFrom<Digit[]>(...hand.exercise.notes.map((n) => n.finger)),
        fc.integer({ min: -99, max: 99 }),
      ),
      { maxLength: 24 },
    )
    .map((heard) => ({ ...hand, landings: landed(hand, heard) })),
)

/** Every number that is said of a finding, but what it is found by. */
const numbers = (verdict: Verdict) =>
  'findings' in verdict
    ? verdict.findings.flatMap((f) => Object.entries(f).filter(([, value]) => typeof value === 'number'))
    : []
const inMm = (verdict: Verdict) => numbers(verdict).filter(([name]) => name.endsWith('Mm'))

describe('a verdict, whatever was read', () => {
  it('never fails, never says a number that is none, and never guesses from fewer than three fingers', () => {
    fc.assert(
      fc.property(anyTake, (take) => {
        const verdict = judgeTake(take)
        const heard = new Set(take.landings.map((l) => l.finger).filter((finger) => finger !== 0))
        if (heard.size < 3) expect(['not_enough_notes', 'string_out_of_tune']).toContain(verdict.outcome)
        for (const [, size] of numbers(verdict)) expect(Number.isFinite(size)).toBe(true)
        if (verdict.outcome === 'explained') expect(verdict.findings.length).toBeGreaterThan(0)
        if (verdict.outcome === 'not_enough_notes' && verdict.more)
          expect(verdict.more).toBeGreaterThanOrEqual(1)
      }),
      SEED,
    )
  })

  it('says that it does not know where a tolerance or a reading is none, instead of failing', () => {
    const take = { stringing: strung('violin', 328), exercise: shaped('violin') }
    const landings = landed(
      take,
      [1, 2, 3, 4, 1, 2, 3, 4].map((f, i) => [f as Digit, 20 + i] as const),
    )
    for (const toleranceCents of [0, NaN, -5])
      expect(judgeTake({ ...take, landings, toleranceCents }).outcome).toBe('not_enough_notes')
    const nothing = landings.map((landing) => ({ ...landing, cents: NaN }))
    expect(judgeTake({ ...take, landings: nothing, toleranceCents: 10 }).outcome).toBe('not_enough_notes')
  })

  it('is the same hand on an instrument of another size: every mm grows with the string', () => {
    fc.assert(
      fc.property(anyTake, fc.double({ min: 0.5, max: 2, noNaN: true }), (take, factor) => {
        const { family, lengthMm } = take.stringing
        const larger = judgeTake({ ...take, stringing: strung(family.id, lengthMm * factor) })
        const verdict = judgeTake(take)
        expect(larger.outcome).toBe(verdict.outcome)
        const grown = inMm(larger)
        inMm(verdict).forEach(([, mm], i) =>
          expect((grown[i]![1] as number) / factor).toBeCloseTo(mm as number, 4),
        )
      }),
      SEED,
    )
  })

  it('is well where every note lies on its place, and never well where all are far off', () => {
    fc.assert(
      fc.property(anyHand, fc.integer({ min: 6, max: 10 }), fc.constantFrom(-1, 1), (hand, times, sign) => {
        const fingers = hand.exercise.notes.map((n) => n.finger).filter((finger) => finger !== 0)
        fc.pre(fingers.length >= 3)
        const all = (cents: number) =>
          judgeTake({
            ...hand,
            landings: landed(
              hand,
              // The last round a little off: a sheet that says the same again and again is one round.
              Array.from({ length: times }, (_, i) =>
                fingers.map((f) => [f, cents + (i === 0 ? 0.5 : 0)] as const),
              ).flat(),
            ),
          })
        expect(all(0).outcome).toBe('in_tune')
        expect(all(sign * 2.2 * hand.toleranceCents).outcome).not.toBe('in_tune')
      }),
      SEED,
    )
  })

  it('looks at no finger while the open string is surely off', () => {
    fc.assert(
      fc.property(anyTake, fc.integer({ min: 16, max: 99 }), (take, cents) => {
        const landings = [...take.landings.filter((l) => l.finger !== 0), ...landed(take, [[0, -cents]])]
        expect(judgeTake({ ...take, landings })).toMatchObject({
          outcome: 'string_out_of_tune',
          cents: -cents,
        })
      }),
      SEED,
    )
  })
})

describe('the weighing', () => {
  const take = {
    stringing: strung('violin', 328),
    exercise: shaped('violin'),
    toleranceCents: 10,
    landings: landed({ stringing: strung('violin', 328), exercise: shaped('violin') }, [
      [1, 14],
      [2, 3],
      [3, -9],
      [4, -31],
      [1, 9],
      [2, 6],
      [3, -2],
      [4, -24],
    ]),
  }
  const evidence = evidenceOf(take)

  it('sizes one fault and two as ml-matrix’s least squares does', () => {
    const { notes } = evidence
    const wanted = Matrix.columnVector(notes.map(({ cents, weight }) => Math.sqrt(weight) * cents))
    let compared = 0
    for (const { candidates } of weigh(evidence).explanations) {
      if (candidates.length === 0) continue
      const design = new Matrix(
        notes.map(({ weight }, i) => candidates.map(({ effects }) => Math.sqrt(weight) * effects[i]!)),
      )
      const sizesCents = sizesOf(notes, candidates)
      const theirs = solve(design, wanted, true).to1DArray()
      sizesCents.forEach((size, k) => expect(size).toBeCloseTo(theirs[k]!, 6))
      const left = leftOver(notes, candidates, sizesCents)
      const squares = notes.reduce((sum, { weight }, i) => sum + weight * left[i]! ** 2, 0)
      expect(squares).toBeCloseTo(
        Matrix.sub(wanted, design.mmul(Matrix.columnVector(theirs))).norm('frobenius') ** 2,
        5,
      )
      compared++
    }
    expect(compared).toBeGreaterThan(20)
  })

  it('weighs notes that hang together as the inverse of their whole matrix does (ml-matrix)', () => {
    const { notes } = evidence
    const rows = notes.map((_, i) => Math.sin(i + 1))
    const products = productsOf(notes, [rows])
    const roots = notes.map(({ weight }) => Math.sqrt(weight))
    const column = (values: readonly number[]) => Matrix.columnVector(values.map((v, i) => roots[i]! * v))
    const [row, played] = [column(rows), column(notes.map(({ cents }) => cents))]
    for (const hanging of HANGINGS) {
      const covariance = new Matrix(
        notes.map((_, i) =>
          notes.map(
            (__, k) => hanging.hand * hanging.stays ** Math.abs(i - k) + (i === k ? 1 - hanging.hand : 0),
          ),
        ),
      )
      const by = inverse(covariance)
      expect(products.withPlayed(0, hanging)).toBeCloseTo(row.transpose().mmul(by).mmul(played).get(0, 0), 6)
      expect(products.ofPlayed(hanging)).toBeCloseTo(played.transpose().mmul(by).mmul(played).get(0, 0), 5)
      expect(products.logDeterminant(hanging)).toBeCloseTo(Math.log(determinant(covariance)), 8)
    }
  })

  it('sums sizes, scatters and drifts as a grid does that is laid over all of them (likelihoods by ml-matrix)', () => {
    const { notes, toleranceCents } = evidence
    const usual = usualOf(candidatesOf(rowsOf(evidence)))
    const roots = notes.map(({ weight }) => Math.sqrt(weight))
    const column = (values: ArrayLike<number>) => Matrix.columnVector(roots.map((r, i) => r * values[i]!))
    const played = column(notes.map(({ cents }) => cents))
    const { least, most } = faultSizes(toleranceCents)
    const along = (steps: number, from: number, to: number) =>
      Array.from({ length: steps }, (_, i) => from * (to / from) ** ((i + 0.5) / steps))
    const scatters = along(60, 1.5, 42)
    const count = notes.reduce((sum, { weight }) => sum + weight, 0)
    const evidenceFor = (effects: readonly Matrix[]) => {
      const sizes = along(effects.length === 1 ? 120 : 40, least, most)
      const [first, second] = effects
      const logs = USUALLY.flatMap(({ share, hand, stays }) => {
        const covariance = new Matrix(
          notes.map((_, i) =>
            notes.map((__, k) => hand * stays ** Math.abs(i - k) + (i === k ? 1 - hand : 0)),
          ),
        )
        const by = inverse(covariance)
        const squaresLeft = (left: Matrix) => left.transpose().mmul(by).mmul(left).get(0, 0)
        const lefts = sizes.flatMap((size) => {
          const left = Matrix.sub(played, Matrix.mul(first!, size))
          if (!second) return [squaresLeft(left)]
          return sizes.map((other) => squaresLeft(Matrix.sub(left, Matrix.mul(second, other))))
        })
        return scatters.flatMap((cents) => {
          // Log-normal about seven by 0.6, as noise.ts has it; each note’s own density.
          const prior =
            Math.log(share / lefts.length) -
            count * Math.log(cents) -
            Math.log(determinant(covariance)) / 2 -
            (Math.log(cents / 7) / 0.6) ** 2 / 2
          return lefts.map((left) => prior - left / (2 * cents ** 2))
        })
      })
      return logSum(logs)
    }
    const told = weigh(evidence).explanations.filter(({ candidates }) => candidates.length > 0)
    const of = [...told.filter(({ candidates }) => candidates.length === 1).slice(0, 3), ...told.slice(0, 3)]
    const apart = of.map(({ candidates, log }) => {
      const ours = log - Math.log(usual.of(candidates) / usual.waysOf(candidates))
      return ours - evidenceFor(candidates.map(({ effects }) => column(effects)))
    })
    // Laplace’s method and a coarse grid of scatters: the odds of any two agree within a half more.
    for (const one of apart) expect(Math.abs(one - apart[0]!)).toBeLessThan(0.4)
  })

  it('shares one probability among all explanations, and gives a fault no more than its notes do', () => {
    const { explanations } = weigh(evidence)
    expect(explanations.reduce((sum, { probability }) => sum + probability, 0)).toBeCloseTo(1, 9)
    // The frame is narrow whatever else is; a hand that is well is out of the question.
    expect(explanations[0]!.candidates.map(({ kind }) => kind.id)).toContain('frame')
    const well = explanations.find(({ candidates }) => candidates.length === 0)!
    expect(well.probability).toBeLessThan(0.02)
  })
})

it('the normal distribution is that of printed tables (0.5, 0.8413, 0.9772, 0.0062 at 0, 1, 2 and −2.5)', () => {
  expect([0, 1, 2, -2.5].map((z) => Number(normalBelow(z).toFixed(4)))).toEqual([0.5, 0.8413, 0.9772, 0.0062])
  expect([normalBelow(40), normalBelow(-40)]).toEqual([1, 0])
})

it('chi-square is that of printed tables (five in a hundred: 3.841, 11.070, 31.410 at 1, 5 and 20 degrees)', () => {
  expect([1, 5, 20].map((n) => Number(chiSquare(0.95, n).toFixed(3)))).toEqual([3.841, 11.07, 31.41])
})
