import fc from 'fast-check'
import { Matrix, solve } from 'ml-matrix'
import { describe, expect, it } from 'vitest'
import { seededSource } from '../simulate'
import {
  calibrateByRings,
  MEASURED_PRIOR,
  placeOfCents,
  calibratedSigmaMm,
  type RingObservation,
} from './index'

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
        const { lengthSigmaMm, nutSigmaMm, placeSigmaMm: sigma } = MEASURED_PRIOR
        const rows = [
          [1 / nutSigmaMm, 0],
          [0, 1 / lengthSigmaMm],
          ...rings.map((r) => [1 / sigma, (1 - 2 ** (-r.cents / 1200)) / sigma]),
        ]
        const right = [0, 0, ...given.map((f) => f.offMm / sigma)]
        const peer = solve(new Matrix(rows), Matrix.columnVector(right), true).to1DArray()
        const ours = calibrateByRings(rings)
        expect(ours.nutOffsetMm).toBeCloseTo(peer[0]!, 8)
        expect(ours.lengthCorrectionMm).toBeCloseTo(peer[1]!, 8)
        const covariance = new Matrix(rows).transpose().mmul(new Matrix(rows))
        const inverse = solve(covariance, Matrix.eye(2))
        expect(ours.nutVariance).toBeCloseTo(inverse.get(0, 0), 8)
        expect(ours.lengthVariance).toBeCloseTo(inverse.get(1, 1), 8)
        expect(ours.covariance).toBeCloseTo(inverse.get(0, 1), 8)
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
    expect(trusted.nutOffsetMm).toBeGreaterThan(without.nutOffsetMm + 0.3)
  })

  it('questions a ring entered on the wrong string, and the further of two that contradict each other', () => {
    // E on D, written down as E on A: seven semitones instead of two
    expect(calibrateByRings([find(284.5, 701.955, 31.6)]).finds[0]?.isQuestioned).toBe(true)
    const two = calibrateByRings([find(284.5, 203.91, 31.8), find(284.5, 203.91, 36)])
    expect(two.finds.map((f) => f.isQuestioned)).toEqual([false, true])
  })

  it('questions an honest find hardly ever, and its interval holds 19 times in 20', () => {
    const random = seededSource(0.31)
    const gauss = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    const { lengthSigmaMm, nutSigmaMm, placeSigmaMm: sigma } = MEASURED_PRIOR
    let questioned = 0
    let held = 0
    const runs = 1500
    for (let run = 0; run < runs; run++) {
      const [longer, offset] = [gauss() * lengthSigmaMm, gauss() * nutSigmaMm]
      const fit = calibrateByRings(
        rungOn(328, longer, offset).map((f) => ({ ...f, placeMm: f.placeMm + gauss() * sigma })),
      )
      questioned += fit.finds.filter((f) => f.isQuestioned).length
      const truth = offset + placeOfCents(328 + longer, 203.91)
      const fitted = fit.nutOffsetMm + placeOfCents(328 + fit.lengthCorrectionMm, 203.91)
      held += Number(Math.abs(fitted - truth) <= 1.96 * calibratedSigmaMm(fit, 203.91))
    }
    // P(|z| > 3) = 0.27 %, standard normal table
    expect(questioned / (runs * MARKS.length)).toBeLessThan(0.005)
    expect(held / runs).toBeGreaterThan(0.93)
    expect(held / runs).toBeLessThan(0.97)
  })

  it('takes finds on several strings of different length together', () => {
    const fit = calibrateByRings([...rungOn(284, 1, 0, [203.91, 498.045]), ...rungOn(286, 1, 0, [701.955])])
    expect(fit.finds.every((f) => !f.isQuestioned)).toBe(true)
    expect(fit.lengthCorrectionMm).toBeGreaterThan(0.2)
  })
})
