import { centsToRatio } from '../pitch'
import { studentsT } from '../stats'

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

/** How a string length came to be known: nut to bridge, twice the distance to the octave harmonic, string by string, or not at all. */
export const LENGTH_SOURCES = ['bridge', 'harmonic', 'strings', 'typical'] as const
export type LengthSource = (typeof LENGTH_SOURCES)[number]

/** A ruler laid along strings, mm: once, doubled with its error, or string by string. Common practice, no source. */
const RULER_SIGMA_MM = { bridge: 1, harmonic: 1.5, strings: 0.7 } as const
/** A tape measure over a long string sags and slips by this part of it. Common practice, no source. */
const RULER_SIGMA_PART = 0.001
/** Makers of one size stay within three parts in a hundred of what is typical: taken for two standard deviations. From memory. */
const TYPICAL_SIGMA_PART = 0.015
/** Where a ruler's zero lies against the nut, and where a mark lies under a finger that rings, mm. Common practice, no source. */
const NUT_SIGMA_MM = 0.5
export const PLACE_SIGMA_MM = 0.35
/** How firmly that last is believed before anything rings: like so many finds' scatter. Chosen in simulation (bench/intervals): true where scatter is usual, soon true where it is twice that. */
const SCATTER_WEIGHT = 2

/** What is known of a string of this length before anything rings. */
export function calibrationPrior(source: LengthSource, lengthMm: number): CalibrationPrior {
  const lengthSigmaMm =
    source === 'typical'
      ? TYPICAL_SIGMA_PART * lengthMm
      : Math.hypot(RULER_SIGMA_MM[source], RULER_SIGMA_PART * lengthMm)
  return { lengthSigmaMm, nutSigmaMm: NUT_SIGMA_MM, placeSigmaMm: PLACE_SIGMA_MM }
}

/** Standard deviations beyond which a find is questioned. */
export const QUESTIONED_SIGMAS = 3
/** Half-width of a two-sided 95 % interval in standard deviations. Source: any table of the normal distribution. */
export const NORMAL_95 = 1.96
/** Beyond twice the usual scatter it is no longer scatter, however few finds there are: a place read off wrong. Chosen. */
const MOST_REACH = 1.4
/** Probability of a normal error above {@link QUESTIONED_SIGMAS}, one side. Source: any table of the normal distribution. */
const QUESTIONED_ABOVE = 0.99865

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
  /** How far finds lie about their places, mm, one standard deviation: what is usual, unless the finds themselves say more. */
  readonly scatterMm: number
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

/** Normal equations of x = o + (L + d)(1 − 1/r): sums over the finds that count, and the prior beside them. */
interface Sums {
  count: number
  part: number
  partSquared: number
  misfit: number
  partMisfit: number
  misfitSquared: number
}

/** A calibration with the scatter that it was fitted with, and how many degrees of freedom tell that. */
interface Fit extends Calibration {
  readonly scatterMm: number
  readonly degreesOfFreedom: number
}

/**
 * Fits a common correction of the string length and an offset of the nut to places found by ring: weighted least squares
 * with the known length as prior (a Bayesian linear model with normal errors). How far finds scatter is learnt from what they
 * leave, beginning from what is usual (a scaled inverse chi-squared prior; A. Gelman et al., Bayesian Data Analysis, ch. 14),
 * and never less than that; where they say more, the variances hold what so few of them leave open (Student's t). A find that disagrees with everything else, its scatter included, by more than three standard deviations is left out
 * and marked as questioned, the worst first, unless it is trusted.
 *
 * @example calibrateByRings([{ lengthMm: 284.5, cents: 203.91, placeMm: 32.4, pressShiftMm: 0 }], calibrationPrior('bridge', 284.5))
 */
export function calibrateByRings(
  finds: readonly RingObservation[],
  prior: CalibrationPrior,
): RingCalibration {
  const points = finds.map((find) => {
    const part = 1 - 1 / centsToRatio(find.cents)
    return { part, misfit: find.placeMm - find.pressShiftMm - find.lengthMm * part }
  })
  const isQuestioned = finds.map(() => false)
  function fitWithout(left: number | undefined): Fit {
    const sums: Sums = { count: 0, part: 0, partSquared: 0, misfit: 0, partMisfit: 0, misfitSquared: 0 }
    for (let i = 0; i < points.length; i++) if (!isQuestioned[i] && i !== left) add(sums, points[i]!)
    return fit(sums, prior)
  }

  /** How far a find is from what the others say: from the calibration without it. */
  function disagreement(i: number) {
    const { part, misfit } = points[i]!
    const rest = fitWithout(i)
    const offMm = misfit - (rest.nutOffsetMm + rest.lengthCorrectionMm * part)
    const sigma = Math.sqrt(rest.scatterMm ** 2 + varianceAt(rest, part))
    return { offMm, sigmas: offMm / sigma, degreesOfFreedom: rest.degreesOfFreedom }
  }

  let judged: readonly ReturnType<typeof disagreement>[]
  for (;;) {
    judged = finds.map((_, i) => disagreement(i))
    let worst = -1
    let worstSigmas = QUESTIONED_SIGMAS
    for (let i = 0; i < judged.length; i++) {
      const { sigmas, degreesOfFreedom } = judged[i]!
      if (isQuestioned[i] || finds[i]?.isTrusted) continue
      if (Math.abs(sigmas) > worstSigmas && Math.abs(sigmas) > questionedFrom(degreesOfFreedom))
        [worst, worstSigmas] = [i, Math.abs(sigmas)]
    }
    if (worst < 0) break
    isQuestioned[worst] = true
  }
  const fitted = fitWithout(undefined)
  const { degreesOfFreedom, scatterMm } = fitted
  const isMore = scatterMm > prior.placeSigmaMm
  const open = isMore ? (studentsT(0.975, degreesOfFreedom) / NORMAL_95) ** 2 : 1
  return {
    lengthCorrectionMm: fitted.lengthCorrectionMm,
    nutOffsetMm: fitted.nutOffsetMm,
    nutVariance: fitted.nutVariance * open,
    lengthVariance: fitted.lengthVariance * open,
    covariance: fitted.covariance * open,
    scatterMm,
    finds: judged.map(({ offMm, sigmas }, i) => ({ offMm, sigmas, isQuestioned: isQuestioned[i] ?? false })),
  }
}

/** On Student's scale three deviations of a scatter known from few finds are further off; but not without end. */
function questionedFrom(degreesOfFreedom: number): number {
  return Math.min(MOST_REACH * QUESTIONED_SIGMAS, studentsT(QUESTIONED_ABOVE, degreesOfFreedom))
}

/** Standard deviation, mm, of the place of a note `cents` above the open string once calibrated. */
export function calibratedSigmaMm(calibration: Calibration, cents: number): number {
  return Math.sqrt(varianceAt(calibration, 1 - 1 / centsToRatio(cents)))
}

function varianceAt({ nutVariance, covariance, lengthVariance }: Calibration, part: number): number {
  return nutVariance + 2 * part * covariance + part * part * lengthVariance
}

/** In place: of each find the sums of all the others are made, and a cupboard has thousands. */
function add(sums: Sums, { part, misfit }: { readonly part: number; readonly misfit: number }) {
  sums.count += 1
  sums.part += part
  sums.partSquared += part * part
  sums.misfit += misfit
  sums.partMisfit += part * misfit
  sums.misfitSquared += misfit * misfit
}

/** The scatter settles within a few rounds. */
const ROUNDS = 6

/** Field by field: a cupboard fits thousands of times, and a spread costs more than the sums. */
function fit(sums: Readonly<Sums>, prior: CalibrationPrior): Fit {
  let scatterMm = prior.placeSigmaMm
  let solved = solve(sums, prior, scatterMm)
  let degreesOfFreedom = SCATTER_WEIGHT
  for (let round = 0; round < ROUNDS && sums.count > 0; round++) {
    const { nutOffsetMm: o, lengthCorrectionMm: d, nutVariance, covariance, lengthVariance } = solved
    const left =
      sums.misfitSquared -
      2 * (o * sums.misfit + d * sums.partMisfit) +
      o * o * sums.count +
      2 * o * d * sums.part +
      d * d * sums.partSquared
    const explained =
      (sums.count * nutVariance + 2 * sums.part * covariance + sums.partSquared * lengthVariance) /
      scatterMm ** 2
    degreesOfFreedom = SCATTER_WEIGHT + sums.count - explained
    const learnt = (SCATTER_WEIGHT * prior.placeSigmaMm ** 2 + Math.max(0, left)) / degreesOfFreedom
    const before = scatterMm
    scatterMm = Math.max(prior.placeSigmaMm, Math.sqrt(learnt))
    if (scatterMm === before) break
    solved = solve(sums, prior, scatterMm)
  }
  return {
    nutOffsetMm: solved.nutOffsetMm,
    lengthCorrectionMm: solved.lengthCorrectionMm,
    nutVariance: solved.nutVariance,
    lengthVariance: solved.lengthVariance,
    covariance: solved.covariance,
    scatterMm,
    degreesOfFreedom,
  }
}

function solve(sums: Readonly<Sums>, prior: CalibrationPrior, scatterMm: number): Calibration {
  const weight = 1 / scatterMm ** 2
  const a = weight * sums.count + 1 / prior.nutSigmaMm ** 2
  const b = weight * sums.part
  const c = weight * sums.partSquared + 1 / prior.lengthSigmaMm ** 2
  const [p, q] = [weight * sums.misfit, weight * sums.partMisfit]
  const determinant = a * c - b * b
  return {
    nutOffsetMm: (c * p - b * q) / determinant,
    lengthCorrectionMm: (a * q - b * p) / determinant,
    nutVariance: c / determinant,
    lengthVariance: a / determinant,
    covariance: -b / determinant,
  }
}
