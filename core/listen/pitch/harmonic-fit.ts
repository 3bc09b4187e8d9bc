import { FEW_PERIODS, MOST_BLOCKS, PartialSums } from './partial-sums'
import { polynomialSlope } from './polynomial'
import { meanBend, partialRatio, STRAIGHT, takeOut, type Bend } from './series'

/** What a harmonic fit found in a stretch of sound. */
export interface HarmonicFit {
  /** Of partial 1 in the middle of the stretch, radians a sample. */
  readonly omega: number
  /** One standard deviation of `omega`, relative to it, from the noise that was left. */
  readonly relativeSigma: number
  /** B of a stiff string; 0 where the partials are whole multiples as far as the noise lets tell. */
  readonly stiffness: number
  /** Part of the sound's power that lies in its partials, 0 … 1. */
  readonly explained: number
  /** Power of each partial, the first at index 0. */
  readonly powers: Float64Array
}

/** What the fit reckons with. Each is there to be switched off and measured (see docs/bench.md). */
export interface FitOptions {
  /** Most partials that are used. */
  readonly partials: number
  /** Follow a frequency that bends within the stretch. */
  readonly bends: boolean
  /** Look for the stretched partials of a stiff string. */
  readonly stiff: boolean
  /** Take out of each partial's sum what the other partials leave there. */
  readonly cleans: boolean
}

export const FIT_OPTIONS: FitOptions = { partials: 32, bends: true, stiff: true, cleans: true }

/** A bend is believed when it is this many times its standard deviation. */
const BELIEVED = 4
/** A bend within a long period is looked into when it is this many times its standard deviation. */
const SUPPOSED = 2
/** A stiffness is looked into when it is this many times its standard deviation. */
const SUSPECTED = 2
/** A stiff string's partials leave this part, at most, of what whole multiples leave unexplained. */
const STIFF_LEAVES = 0.98
/** Rounds in which a stiffness settles. */
const STIFF_ROUNDS = 5
/** A stiffness has settled when it changes by less than this part of itself. */
const SETTLED = 0.05
/** Partials of a stiff string that are used, where there are periods enough: the higher ones of a pluck have soon died away. */
export const STIFF_PARTIALS = 10
/** The same where there are few periods: the higher partials are needed to tell the frequency. */
const STIFF_PARTIALS_LOW = 22
/** Less than any string's. */
const LEAST_STIFFNESS = 2e-5
/** Partials that a first, cautious fit uses. */
const FIRST_PARTIALS = 4
const FIRST_PARTIALS_LOW = 6
/** Partials are used up to this part of half the sampling rate, where the half-band filters begin to fall. */
const USED_BAND = 0.84

/**
 * Fits one harmonic series to a stretch of sound, from a period that is known to about half a percent.
 *
 * The stretch is cut into blocks of whole periods, in which the partials are orthogonal. What each partial is in each block
 * (a Fourier sum at its frequency) turns from block to block by k times one common phase, and that phase against time gives
 * the frequency: of all partials together, each by its k² A², which is the approximate non-linear least squares estimator
 * and reaches the bound of Cramér and Rao. The phase may bend (a cubic, where the bend is significant), so that vibrato is
 * not averaged; its slope is taken in the middle. What the partials turn beyond k times the common phase is regressed on
 * k² − 1: the stiffness of the string, where it explains the sound better. Partials that are stretched or bend within a long
 * period are not orthogonal; what they leave in each other's sums is then taken out by fitting again what the model leaves.
 * Source: M. G. Christensen and A. Jakobsson, Multi-Pitch Estimation (2009), ch. 2; for the bound D. C. Rife and R. R. Boorstyn,
 * IEEE Trans. Inf. Theory 20 (1974) 591; for stiff strings H. Fletcher, J. Acoust. Soc. Am. 36 (1964) 203.
 */
export class HarmonicFitter {
  readonly #sums: PartialSums
  readonly #rest: Float64Array
  readonly #sumRe: Float64Array
  readonly #sumIm: Float64Array
  readonly #turnRe: Float64Array
  readonly #turnIm: Float64Array
  readonly #slopes: Float64Array
  readonly #theta = new Float64Array(MOST_BLOCKS)
  readonly #weights = new Float64Array(MOST_BLOCKS)
  /** What the last fit found. */
  #model = { omega: 0, bend: STRAIGHT, stiffness: 0, partials: 0 }

  /** @param longest stretch that will be fitted, samples. */
  constructor(
    longest: number,
    private readonly options: FitOptions = FIT_OPTIONS,
  ) {
    this.#sums = new PartialSums(longest, options.partials)
    const row = () => new Float64Array(this.#sums.room)
    this.#rest = new Float64Array(longest)
    this.#sumRe = row()
    this.#sumIm = row()
    this.#turnRe = row()
    this.#turnIm = row()
    this.#slopes = row()
  }

  /**
   * @param samples at least two and a half periods long, the middle of which is the moment that is asked about.
   * @param before what was found a moment ago, where it is followed: the string is taken to be as stiff still, and no more.
   * @returns undefined where no series with about this period holds.
   */
  fit(samples: Float64Array, period: number, before?: HarmonicFit): HarmonicFit | undefined {
    const most = Math.min(this.options.partials, Math.floor((USED_BAND / 2) * period))
    if (!(most >= 1 && samples.length >= 2.5 * period)) return undefined
    const fit = this.#fitted(samples, (2 * Math.PI) / period, most, before)
    // Blocks of which hardly one holds anything tell no slope.
    return fit && Number.isFinite(fit.omega) ? fit : undefined
  }

  #fitted(
    samples: Float64Array,
    asked: number,
    most: number,
    before: HarmonicFit | undefined,
  ): HarmonicFit | undefined {
    const period = (2 * Math.PI) / asked
    if (before) {
      // The stretched partials of few periods must be cleaned of each other each time.
      const rounds = samples.length < FEW_PERIODS * period ? 1 : 0
      return this.#settle(samples, asked, before.stiffness, most, rounds)
    }
    const few = Math.min(samples.length < FEW_PERIODS * period ? FIRST_PARTIALS_LOW : FIRST_PARTIALS, most)
    this.#sums.analyse(samples, asked, 0, few)
    const first = this.#turn(asked, few, BELIEVED)
    if (!(first.omega > 0) || Math.abs(first.omega / asked - 1) > 0.06) return undefined
    const suspected = this.options.stiff && few > 2 ? this.#stretch(few, first.omega).suspected : 0
    const harmonic = this.#settle(samples, first.omega, 0, most)
    if (suspected === 0) return harmonic
    const left = this.#takeOut(samples)
    const stiff = this.#settle(samples, first.omega, suspected, most)
    return this.#takeOut(samples) < STIFF_LEAVES * left ? stiff : harmonic
  }

  /** What the last stretch holds beside the series that was found; a view that the next fit changes. */
  rest(samples: Float64Array): Float64Array {
    this.#takeOut(samples)
    return this.#rest.subarray(0, samples.length)
  }

  /** The fit with all partials; more than one round where they are stretched or bend. Leaves what it found in `#model`. */
  #settle(
    samples: Float64Array,
    startOmega: number,
    startStiffness: number,
    most: number,
    stiffRounds = STIFF_ROUNDS,
  ): HarmonicFit {
    const isStiff = startStiffness > 0
    const { cleans } = this.options
    const isShort = samples.length * startOmega < FEW_PERIODS * 2 * Math.PI
    const wanted = isStiff ? Math.min(isShort ? STIFF_PARTIALS_LOW : STIFF_PARTIALS, most) : most
    let stiffness = startStiffness
    let partials = this.#usable(wanted, startOmega, stiffness)
    this.#sums.analyse(samples, startOmega, stiffness, partials)
    let turned = this.#turn(startOmega, partials, cleans && this.#sums.isOverlapping ? SUPPOSED : BELIEVED)
    const bends = cleans && this.#sums.isOverlapping && turned.bend.cubic !== 0
    const rounds = isStiff ? stiffRounds : bends ? 1 : 0
    let hasSettled = false
    for (let round = 0; round < rounds && !hasSettled; round++) {
      let { omega } = turned
      if (isStiff) {
        const found = this.#stretch(partials, omega)
        stiffness = Math.max(LEAST_STIFFNESS, stiffness + found.change)
        hasSettled = round > 0 && Math.abs(found.change) < SETTLED * stiffness
        omega *= 1 + found.shift
      }
      partials = Math.min(partials, this.#usable(wanted, omega, stiffness))
      this.#setModel(omega, turned.bend, stiffness, partials)
      if (cleans) this.#analyseRest(samples)
      else this.#sums.analyse(samples, omega, stiffness, partials)
      turned = this.#turn(omega, partials, BELIEVED, cleans ? turned.bend : undefined)
    }
    this.#setModel(turned.omega, turned.bend, stiffness, partials)
    return this.#result(turned, stiffness, partials)
  }

  /** Leaves in `#rest` what the model does not sound; returns its mean square. */
  #takeOut(samples: Float64Array): number {
    const { blocks, length, ratio } = this.#sums
    const scale = 2 / (blocks * length)
    return takeOut({ ...this.#model, re: this.#sumRe, im: this.#sumIm, scale, ratio }, samples, this.#rest)
  }

  #setModel(omega: number, bend: Bend, stiffness: number, partials: number): void {
    this.#model = { omega, bend, stiffness, partials }
    for (let k = 0; k < partials; k++) this.#sums.ratio[k] = partialRatio(k + 1, stiffness)
  }

  #usable(most: number, omega: number, stiffness: number): number {
    let k = most
    while (k > 1 && partialRatio(k, stiffness) * omega > USED_BAND * Math.PI) k--
    return k
  }

  #result(turned: Turned, stiffness: number, partials: number): HarmonicFit {
    const power = this.#sums.power
    const powers = new Float64Array(partials)
    let explained = 0
    for (let k = 0; k < partials; k++) {
      powers[k] =
        (2 * (this.#sumRe[k]! ** 2 + this.#sumIm[k]! ** 2)) / (this.#sums.blocks * this.#sums.length) ** 2
      explained += powers[k]!
    }
    const { omega, relativeSigma } = turned
    return {
      omega,
      relativeSigma,
      stiffness,
      explained: power > 0 ? Math.max(0, Math.min(1, explained / power)) : 0,
      powers,
    }
  }

  /** The sums of each partial once what the model makes of all others is taken out of the sound. */
  #analyseRest(samples: Float64Array): void {
    const { omega, bend, partials } = this.#model
    this.#takeOut(samples)
    const power = this.#sums.power
    const room = this.#sums.room
    const own = 1 / this.#sums.blocks
    this.#sums.transform(this.#rest.subarray(0, samples.length), omega, partials)
    this.#sums.power = power
    for (let b = 0; b < this.#sums.blocks; b++) {
      const theta = meanBend(bend, this.#sums.times[b]!, this.#sums.length)
      for (let k = 0, at = b * room; k < partials; k++, at++) {
        const turn = this.#sums.ratio[k]! * theta
        const c = Math.cos(turn) * own
        const s = Math.sin(turn) * own
        this.#sums.re[at]! += this.#sumRe[k]! * c - this.#sumIm[k]! * s
        this.#sums.im[at]! += this.#sumRe[k]! * s + this.#sumIm[k]! * c
      }
    }
  }

  /** The common phase of all partials from block to block, and the frequency that follows. */
  #turn(omega: number, partials: number, believed: number, known?: Bend): Turned {
    const blocks = this.#sums.blocks
    const slope = known ? 0 : this.#firstSlope(partials)
    if (slope !== 0) this.#sums.unwind(slope, partials)
    for (let b = 0; b < blocks; b++)
      this.#theta[b] = known ? meanBend(known, this.#sums.times[b]!, this.#sums.length) : 0
    let variance = 0
    for (let round = 0; round < 2; round++) {
      this.#sum(partials)
      variance = this.#pull(partials)
    }
    this.#sum(partials)
    // Blocks that overlap hear the same noise: they count as the blocks that would fit side by side.
    const alone = Math.min(
      1,
      (this.#sums.stride * (blocks - 1) + this.#sums.length) / (blocks * this.#sums.length),
    )
    const fit = polynomialSlope(this.#sums.times, this.#theta, this.#weights, blocks, variance / alone, {
      believed: this.options.bends ? believed : Infinity,
    })
    // A block tells the mean of its phases: of a cubic c t³ that adds c L²/4 to the slope.
    const flattened = (fit.cubic * this.#sums.length ** 2) / 4
    return {
      omega: omega + slope + fit.slope - flattened,
      relativeSigma: fit.sigma / omega,
      bend: {
        at0: fit.at0 - (fit.square * this.#sums.length ** 2) / 12,
        square: fit.square,
        cubic: fit.cubic,
      },
    }
  }

  /** A first slope of the common phase, from how each partial turns from one block to the next. */
  #firstSlope(partials: number): number {
    const room = this.#sums.room
    const turnRe = this.#turnRe
    const turnIm = this.#turnIm
    turnRe.fill(0)
    turnIm.fill(0)
    for (let b = 0; b + 1 < this.#sums.blocks; b++)
      for (let k = 0, at = b * room; k < partials; k++, at++) {
        const r0 = this.#sums.re[at]!
        const i0 = this.#sums.im[at]!
        const r1 = this.#sums.re[at + room]!
        const i1 = this.#sums.im[at + room]!
        turnRe[k]! += r1 * r0 + i1 * i0
        turnIm[k]! += i1 * r0 - r1 * i0
      }
    let slope = 0
    // Low partials first: they turn least and cannot have turned round. Each step doubles how many are asked.
    for (let upTo = Math.min(2, partials); ; upTo = Math.min(2 * upTo, partials)) {
      let above = 0
      let below = 0
      for (let k = 0; k < upTo; k++) {
        const weight = this.#sums.ratio[k]!
        const turn = weight * slope * this.#sums.stride
        const c = Math.cos(turn)
        const s = Math.sin(turn)
        const re = turnRe[k]!
        const im = turnIm[k]!
        const size = Math.sqrt(re * re + im * im)
        above += size * weight * Math.atan2(im * c - re * s, re * c + im * s)
        below += size * weight * weight
      }
      if (below > 0) slope += above / (below * this.#sums.stride)
      if (!(upTo < partials)) return slope
    }
  }

  /** Each partial summed over the blocks, the common phase taken off. What is left of it is small: k serves for the ratio. */
  #sum(partials: number): void {
    const sumRe = this.#sumRe
    const sumIm = this.#sumIm
    sumRe.fill(0)
    sumIm.fill(0)
    for (let b = 0; b < this.#sums.blocks; b++) {
      const c = Math.cos(this.#theta[b]!)
      const s = -Math.sin(this.#theta[b]!)
      let re = c
      let im = s
      for (let k = 0, at = b * this.#sums.room; k < partials; k++, at++) {
        sumRe[k]! += this.#sums.re[at]! * re - this.#sums.im[at]! * im
        sumIm[k]! += this.#sums.re[at]! * im + this.#sums.im[at]! * re
        const next = re * c - im * s
        im = re * s + im * c
        re = next
      }
    }
  }

  /**
   * One step of Newton's for the common phase of each block; the weight of a block is the curvature there. Returns the noise's
   * power a bin, by which a weight becomes a variance.
   */
  #pull(partials: number): number {
    const blocks = this.#sums.blocks
    let noise = 0
    for (let b = 0; b < blocks; b++) {
      const c = Math.cos(this.#theta[b]!)
      const s = -Math.sin(this.#theta[b]!)
      let turnRe = c
      let turnIm = s
      let force = 0
      let curve = 0
      for (let k = 0, at = b * this.#sums.room; k < partials; k++, at++) {
        const re = this.#sums.re[at]! * turnRe - this.#sums.im[at]! * turnIm
        const im = this.#sums.re[at]! * turnIm + this.#sums.im[at]! * turnRe
        const sr = this.#sumRe[k]!
        const si = this.#sumIm[k]!
        // Along the partial's own direction is signal, across it is phase.
        const across = im * sr - re * si
        force += (k + 1) * across
        curve += (k + 1) * (k + 1) * (re * sr + im * si)
        const size = sr * sr + si * si
        if (size > 0) noise += (across * across) / size
        const next = turnRe * c - turnIm * s
        turnIm = turnRe * s + turnIm * c
        turnRe = next
      }
      const step = curve > 0 ? force / curve : 0
      this.#theta[b]! += Math.max(-0.5, Math.min(0.5, step))
      this.#weights[b] = Math.max(curve / blocks, 1e-300)
    }
    return noise / (partials * blocks)
  }

  /** What the partials turn beyond the common phase, as a stiffness beyond that which was reckoned with. */
  #stretch(partials: number, omega: number): { suspected: number; change: number; shift: number } {
    const none = { suspected: 0, change: 0, shift: 0 }
    const blocks = this.#sums.blocks
    let spread = 0
    for (let b = 0; b < blocks; b++) spread += this.#sums.times[b]! ** 2
    const slopes = this.#slopes
    let noise = 0
    for (let k = 0; k < partials; k++) {
      const sr = this.#sumRe[k]! / blocks
      const si = this.#sumIm[k]! / blocks
      const size = sr * sr + si * si
      if (!(size > 0)) return none
      let turned = 0
      for (let b = 0, at = k; b < blocks; b++, at += this.#sums.room) {
        const turn = (k + 1) * this.#theta[b]!
        const c = Math.cos(turn)
        const s = Math.sin(turn)
        const r = this.#sums.re[at]!
        const i = this.#sums.im[at]!
        const across = ((i * c - r * s) * sr - (r * c + i * s) * si) / size
        turned += this.#sums.times[b]! * across
        noise += across * across * size
      }
      slopes[k] = turned / spread
      noise -= (turned * turned * size) / spread
    }
    noise /= partials * (blocks - 1)
    let w = 0
    let wu = 0
    let wuu = 0
    let wy = 0
    let wuy = 0
    for (let k = 1; k <= partials; k++) {
      const weight = k * k * (this.#sumRe[k - 1]! ** 2 + this.#sumIm[k - 1]! ** 2)
      const u = (k * k - 1) / 2
      const y = slopes[k - 1]! / (this.#sums.ratio[k - 1]! * omega)
      w += weight
      wu += weight * u
      wuu += weight * u * u
      wy += weight * y
      wuy += weight * u * y
    }
    const across = wuu - (wu * wu) / w
    if (!(across > 0)) return none
    const change = (wuy - (wu * wy) / w) / across
    const sigma = Math.sqrt((noise * blocks * blocks) / (across * spread)) / omega
    const isSuspected = change > SUSPECTED * sigma && change > LEAST_STIFFNESS
    return { suspected: isSuspected ? change : 0, change, shift: (wy - change * wu) / w }
  }
}

interface Turned {
  readonly omega: number
  readonly relativeSigma: number
  readonly bend: Bend
}
