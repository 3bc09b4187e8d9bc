import { centsToRatio } from '../pitch'

/** A place where a note was found to ring, on a string of its own length. */
export interface RingObservation {
  /** Length of its string as measured, mm. */
  readonly lengthMm: number
  /** Above its open string. */
  readonly cents: number
  /** From the nut, mm. */
  readonly placeMm: number
  /** How far pressing moves this place, mm; 0 where pressing is not reckoned with. */
  readonly pressShiftMm: number
  /** The teacher has looked again and stands by it. */
  readonly isTrusted?: boolean
}

/** How well things are known before anything rings, mm, one standard deviation. */
export interface CalibrationPrior {
  readonly lengthSigmaMm: number
  readonly nutSigmaMm: number
  readonly placeSigmaMm: number
}

/** A ruler laid along a string reads to about half a millimetre, a mark under a finger to a third. Common practice, no source. */
export const MEASURED_PRIOR: CalibrationPrior = { lengthSigmaMm: 1, nutSigmaMm: 0.5, placeSigmaMm: 0.35 }

/** Standard deviations beyond which a find is questioned. */
export const QUESTIONED_SIGMAS = 3
/** Half-width of a two-sided 95 % interval in standard deviations. Source: any table of the normal distribution. */
export const NORMAL_95 = 1.96

/** What is known of a string beyond its measured length. */
export interface Calibration {
  /** To be added to every measured length, mm. */
  readonly lengthCorrectionMm: number
  /** By how far every place lies further from where the ruler began, mm. */
  readonly nutOffsetMm: number
  /** Of length correction and nut offset: variances and covariance, mm². */
  readonly lengthVariance: number
  readonly nutVariance: number
  readonly covariance: number
}

export interface RingCalibration extends Calibration {
  /** One an observation, in the order given. */
  readonly finds: readonly JudgedFind[]
}

export interface JudgedFind {
  /** Found minus what all the other evidence leads one to expect, mm. */
  readonly offMm: number
  /** The same in standard deviations. */
  readonly sigmas: number
  /** Left out until the teacher has looked again. */
  readonly isQuestioned: boolean
}

/** Normal equations of x = o + (L + d)(1 − 1/r): sums over the finds, with the prior on their diagonal. */
interface Sums {
  weight: number
  part: number
  partSquared: number
  misfit: number
  partMisfit: number
}

/**
 * Fits a common correction of the string length and an offset of the nut to places found by ring: weighted least squares
 * with the measured length as prior (a Bayesian linear model with normal errors). A find that disagrees with everything
 * else by more than three standard deviations is left out and marked as questioned, the worst first, unless it is trusted.
 *
 * @example calibrateByRings([{ lengthMm: 284.5, cents: 203.91, placeMm: 32.4, pressShiftMm: 0 }]).nutOffsetMm // about 0.5
 */
export function calibrateByRings(
  finds: readonly RingObservation[],
  prior: CalibrationPrior = MEASURED_PRIOR,
): RingCalibration {
  const parts = finds.map((find) => 1 - 1 / centsToRatio(find.cents))
  const misfits = finds.map((find, i) => find.placeMm - find.pressShiftMm - find.lengthMm * (parts[i] ?? 0))
  const weight = 1 / prior.placeSigmaMm ** 2
  const questioned = finds.map(() => false)
  const sums = emptySums(prior)
  for (let i = 0; i < finds.length; i++) addTo(sums, weight, parts[i] ?? 0, misfits[i] ?? 0)

  /** How far a find is from what the others say: from the calibration without it. */
  const disagreement = (i: number): { offMm: number; sigmas: number } => {
    const part = parts[i] ?? 0
    const misfit = misfits[i] ?? 0
    const others = { ...sums }
    if (!questioned[i]) addTo(others, -weight, part, misfit)
    const rest = solve(others)
    const offMm = misfit - (rest.nutOffsetMm + rest.lengthCorrectionMm * part)
    return { offMm, sigmas: offMm / Math.sqrt(prior.placeSigmaMm ** 2 + varianceAt(rest, part)) }
  }

  for (;;) {
    let worst = -1
    let worstSigmas = QUESTIONED_SIGMAS
    for (let i = 0; i < finds.length; i++) {
      if (questioned[i] || finds[i]?.isTrusted) continue
      const sigmas = Math.abs(disagreement(i).sigmas)
      if (sigmas > worstSigmas) [worst, worstSigmas] = [i, sigmas]
    }
    if (worst < 0) break
    questioned[worst] = true
    addTo(sums, -weight, parts[worst] ?? 0, misfits[worst] ?? 0)
  }
  return {
    ...solve(sums),
    finds: finds.map((_, i) => ({ ...disagreement(i), isQuestioned: questioned[i] ?? false })),
  }
}

/** Standard deviation, mm, of the place of a note `cents` above the open string once calibrated. */
export function calibratedSigmaMm(calibration: Calibration, cents: number): number {
  return Math.sqrt(varianceAt(calibration, 1 - 1 / centsToRatio(cents)))
}

function varianceAt({ nutVariance, covariance, lengthVariance }: Calibration, part: number): number {
  return nutVariance + 2 * part * covariance + part * part * lengthVariance
}

function emptySums(prior: CalibrationPrior): Sums {
  return {
    weight: 1 / prior.nutSigmaMm ** 2,
    part: 0,
    partSquared: 1 / prior.lengthSigmaMm ** 2,
    misfit: 0,
    partMisfit: 0,
  }
}

function addTo(sums: Sums, weight: number, part: number, misfit: number): void {
  sums.weight += weight
  sums.part += weight * part
  sums.partSquared += weight * part * part
  sums.misfit += weight * misfit
  sums.partMisfit += weight * part * misfit
}

function solve({ weight, part, partSquared, misfit, partMisfit }: Sums): Calibration {
  const determinant = weight * partSquared - part * part
  return {
    nutOffsetMm: (partSquared * misfit - part * partMisfit) / determinant,
    lengthCorrectionMm: (weight * partMisfit - part * misfit) / determinant,
    nutVariance: partSquared / determinant,
    lengthVariance: weight / determinant,
    covariance: -part / determinant,
  }
}
