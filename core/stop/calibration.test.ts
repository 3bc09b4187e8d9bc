import { randomNormal } from 'd3-random'
import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { seededSource } from '../simulate'
import {
  calibrateByRings as calibrate,
  calibrationPrior,
  placeOfCents,
  calibratedSigmaMm,
  type CalibrationPrior,
  type RingObservation,
} from './index'

const MEASURED_PRIOR = calibrationPrior('bridge', 328)
const calibrateByRings = (finds: readonly RingObservation[], prior = MEASURED_PRIOR) =>
  calibrate(finds, prior)
const MARKS = [203.91, 407.82, 498.045, 701.955, 905.865, 1200]

function find(
  lengthMm: number,
  cents: number,
  placeMm: number,
  extra: Partial<RingObservation> = {},
): RingObservation {
  return { lengthMm, cents, placeMm, pressShiftMm: 0, ...extra }
}

/** A string that is really `length + longer`, with the ruler's zero `offset` behind the nut. */
function rungOn(length: number, longer: number, offset: number, cents = MARKS): RingObservation[] {
  return cents.map((c) => find(length, c, offset + placeOfCents(length + longer, c)))
}

describe('the fit from rings', () => {
  it('is the weighted least squares that ml-matrix solves, prior rows included', () => {
    const finds = fc.array(
      fc.record({
        lengthMm: fc.constantFrom(284.5, 285, 286),
        cents: fc.constantFrom(...MARKS),
        offMm: fc.double({ min: -0.8, max: 0.8, noNaN: true }),
      }),
      { maxLength: 8 },
    )
    fc.assert(
      fc.property(finds, (given) => {
        const rings = given.map((f) =>
          find(f.lengthMm, f.cents, placeOfCents(f.lengthMm, f.cents) + f.offMm, { isTrusted: true }),
        )
        const ours = calibrateByRings(rings)
        // With the scatter that the finds were given: what it is learnt as is tested below.
        const { lengthSigmaMm, nutSigmaMm } = MEASURED_PRIOR
        const sigma = ours.scatterMm
        const rows = [
          [1 / nutSigmaMm, 0],
          [0, 1 / lengthSigmaMm],
          ...rings.map((r) => [1 / sigma, (1 - 2 ** (-r.cents / 1200)) / sigma]),
        ]
        const right = [0, 0, ...given.map((f) => f.offMm / sigma)]
        const peer = solve(new Matrix(rows), Matrix.columnVector(right), true).to1DArray()
        expect(ours.nutOffsetMm).toBeCloseTo(peer[0]!, 8)
        expect(ours.lengthCorrectionMm).toBeCloseTo(peer[1]!, 8)
        const covariance = new Matrix(rows).transpose().mmul(new Matrix(rows))
        const inverse = solve(covariance, Matrix.eye(2))
        const open = ours.nutVariance / inverse.get(0, 0)
        if (sigma === MEASURED_PRIOR.placeSigmaMm) expect(open).toBeCloseTo(1, 8)
        else expect(open).toBeGreaterThan(1)
        expect(ours.lengthVariance / open).toBeCloseTo(inverse.get(1, 1), 8)
        expect(ours.covariance / open).toBeCloseTo(inverse.get(0, 1), 8)
      }),
      { seed: 42 },
    )
  })

  it('leaves the measured length alone where nothing is found', () => {
    expect(calibrateByRings([])).toMatchObject({ lengthCorrectionMm: 0, nutOffsetMm: 0, finds: [] })
  })

  it('moves towards a longer string and a nut behind the ruler’s zero, and knows its places better than before', () => {
    const fit = calibrateByRings(rungOn(284.5, 1.2, 0.4))
    const before = calibrateByRings([])
    for (const cents of MARKS) {
      const wanted = 0.4 + placeOfCents(284.5 + 1.2, cents)
      const fitted = fit.nutOffsetMm + placeOfCents(284.5 + fit.lengthCorrectionMm, cents)
      expect(Math.abs(fitted - wanted)).toBeLessThan(0.12)
      expect(calibratedSigmaMm(fit, cents)).toBeLessThan(calibratedSigmaMm(before, cents) / 1.5)
    }
  })

  it('questions the one that disagrees, leaves it out, and takes it when the teacher stands by it', () => {
    const good = rungOn(284.5, 0.5, 0.2)
    const slip = find(284.5, 203.91, 36)
    const with_ = calibrateByRings([...good, slip])
    const without = calibrateByRings(good)
    expect(with_.finds.map((f) => f.isQuestioned)).toEqual([...good.map(() => false), true])
    expect(with_.finds.at(-1)!.sigmas).toBeGreaterThan(3)
    expect(with_.nutOffsetMm).toBeCloseTo(without.nutOffsetMm, 10) // removing it restores the places
    const trusted = calibrateByRings([...good, { ...slip, isTrusted: true }])
    expect(trusted.nutOffsetMm).toBeGreaterThan(without.nutOffsetMm + 0.2)
  })

  it('questions a ring entered on the wrong string, and the further of two that contradict each other', () => {
    // E on D, written down as E on A: seven semitones instead of two
    expect(calibrateByRings([find(284.5, 701.955, 31.6)]).finds[0]?.isQuestioned).toBe(true)
    const two = calibrateByRings([find(284.5, 203.91, 31.8), find(284.5, 203.91, 36)])
    expect(two.finds.map((f) => f.isQuestioned)).toEqual([false, true])
  })

  /** Share of honest fits whose interval holds the truth, and of honest finds that are questioned. */
  function simulated(prior: CalibrationPrior, lengthMm: number, marks: readonly number[], scatterMm: number) {
    const gauss = randomNormal.source(seededSource(marks.length))(0, 1)
    let questioned = 0
    let held = 0
    const runs = 1500
    for (let run = 0; run < runs; run++) {
      const [longer, offset] = [gauss() * prior.lengthSigmaMm, gauss() * prior.nutSigmaMm]
      const rung = rungOn(lengthMm, longer, offset, marks as number[])
      const fit = calibrateByRings(
        rung.map((f) => ({ ...f, placeMm: f.placeMm + gauss() * scatterMm })),
        prior,
      )
      questioned += fit.finds.filter((f) => f.isQuestioned).length
      const truth = offset + placeOfCents(lengthMm + longer, 203.91)
      const fitted = fit.nutOffsetMm + placeOfCents(lengthMm + fit.lengthCorrectionMm, 203.91)
      held += Number(Math.abs(fitted - truth) <= 1.96 * calibratedSigmaMm(fit, 203.91))
    }
    return { held: held / runs, questioned: questioned / (runs * marks.length) }
  }

  it.each([
    ['bridge', 328],
    ['strings', 285],
    ['harmonic', 690],
    ['typical', 1050],
  ] as const)(
    'questions an honest find hardly ever, and its interval holds 19 times in 20: %s, %i mm',
    (source, mm) => {
      for (const count of [1, 3, 6]) {
        const { held, questioned } = simulated(calibrationPrior(source, mm), mm, MARKS.slice(0, count), 0.35)
        // P(|z| > 3) = 0.27 %, standard normal table
        expect(questioned).toBeLessThan(0.005)
        expect(held).toBeGreaterThan(0.935)
        expect(held).toBeLessThan(0.985)
      }
    },
  )

  it('notices from the finds themselves that they scatter twice as far as usual', () => {
    const { held, questioned } = simulated(MEASURED_PRIOR, 328, MARKS, 0.7)
    expect(questioned).toBeLessThan(0.01)
    // With the usual scatter believed it was 70 % (this simulation, before).
    expect(held).toBeGreaterThan(0.88)
    const off = [0.9, -0.8, 0.7, -1, 0.8, -0.6]
    const wide = calibrateByRings(rungOn(328, 0, 0).map((f, i) => ({ ...f, placeMm: f.placeMm + off[i]! })))
    expect(wide.scatterMm).toBeGreaterThan(0.6)
    expect(calibratedSigmaMm(wide, 203.91)).toBeGreaterThan(
      1.5 * calibratedSigmaMm(calibrateByRings(rungOn(328, 0, 0)), 203.91),
    )
  })

  it('believes perfect finds over a typical length that is 13 mm short, and questions none', () => {
    const fit = calibrateByRings(
      rungOn(1050, 13, 0, [203.91, 498.045, 701.955]),
      calibrationPrior('typical', 1050),
    )
    expect(fit.finds.map((f) => f.isQuestioned)).toEqual([false, false, false])
    expect(fit.lengthCorrectionMm).toBeGreaterThan(11)
  })

  it('takes finds on several strings of different length together', () => {
    const fit = calibrateByRings([...rungOn(284, 1, 0, [203.91, 498.045]), ...rungOn(286, 1, 0, [701.955])])
    expect(fit.finds.every((f) => !f.isQuestioned)).toBe(true)
    expect(fit.lengthCorrectionMm).toBeGreaterThan(0.2)
  })
})
