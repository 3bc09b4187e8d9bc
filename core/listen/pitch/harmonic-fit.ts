import { polynomialSlope } from './polynomial'

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
  /** Mean square of the stretch. */
  readonly power: number
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

/** Blocks that a stretch of many periods is cut into. */
const BLOCKS = 8
/** Below this many periods blocks are one period long and overlap by two thirds, made of thirds. */
const FEW_PERIODS = 6
const THIRDS = 3
const MOST_BLOCKS = 3 * FEW_PERIODS
/** A bend is believed when it is this many times its standard deviation. */
const BELIEVED = 4
/** A bend within a long period is looked into when it is this many times its standard deviation. */
const SUPPOSED = 2
/** A stiffness is looked into when it is this many times its standard deviation. */
const SUSPECTED = 1
/** A stiff string's partials leave this part, at most, of what whole multiples leave unexplained. */
const STIFF_LEAVES = 0.98
/** Rounds in which a stiffness settles, found anew and followed. */
const STIFF_ROUNDS = 5
const FOLLOWED_ROUNDS = 1
/** Partials of a stiff string that are used, where there are periods enough: the higher ones of a pluck have soon died away. */
export const STIFF_PARTIALS = 10
/** Less than any string's. */
const LEAST_STIFFNESS = 2e-5
/** Partials that a first, cautious fit uses. */
const FIRST_PARTIALS = 4
const FIRST_PARTIALS_LOW = 6
/** Partials are used up to this part of half the sampling rate, where the half-band filters begin to fall. */
const USED_BAND = 0.76

/** The common phase beyond its slope, against the time from the middle: at0 + square t² + cubic t³. */
interface Bend {
  readonly at0: number
  readonly square: number
  readonly cubic: number
}

const STRAIGHT: Bend = { at0: 0, square: 0, cubic: 0 }

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
  /** Room for one partial more than a multiple of four: four at a time are worked on. */
  readonly #room: number
  readonly #block: Float64Array
  readonly #rest: Float64Array
  /** Partial k in block b, at b · room + k. */
  readonly #re: Float64Array
  readonly #im: Float64Array
  readonly #cellRe: Float64Array
  readonly #cellIm: Float64Array
  readonly #sumRe: Float64Array
  readonly #sumIm: Float64Array
  readonly #turnRe: Float64Array
  readonly #turnIm: Float64Array
  /** By what partial k lies above partial 1, and its frequency. */
  readonly #ratio: Float64Array
  readonly #omega: Float64Array
  readonly #slopes: Float64Array
  readonly #cos: Float64Array
  readonly #sin: Float64Array
  readonly #atRe: Float64Array
  readonly #atIm: Float64Array
  readonly #stepRe: readonly Float64Array[]
  readonly #stepIm: readonly Float64Array[]
  readonly #stepLengths = [NaN, NaN]
  #end = NaN
  readonly #theta = new Float64Array(MOST_BLOCKS)
  readonly #times = new Float64Array(MOST_BLOCKS)
  readonly #weights = new Float64Array(MOST_BLOCKS)
  /** Blocks that are laid: how many, how long, how far apart, and of how many cells each. */
  #blocks = 0
  #length = 0
  #stride = 0
  #cells = 1
  #power = 0
  #model = { omega: 0, bend: STRAIGHT, stiffness: 0, partials: 0 }

  /** @param longest stretch that will be fitted, samples. */
  constructor(
    longest: number,
    private readonly options: FitOptions = FIT_OPTIONS,
  ) {
    this.#room = 4 * Math.ceil(options.partials / 4)
    const room = () => new Float64Array(this.#room)
    const blocks = () => new Float64Array(this.#room * (MOST_BLOCKS + THIRDS))
    this.#block = new Float64Array(longest + 4)
    this.#rest = new Float64Array(longest)
    ;[this.#re, this.#im, this.#cellRe, this.#cellIm] = [blocks(), blocks(), blocks(), blocks()]
    ;[this.#sumRe, this.#sumIm, this.#turnRe, this.#turnIm] = [room(), room(), room(), room()]
    ;[this.#ratio, this.#omega, this.#slopes] = [room(), room(), room()]
    ;[this.#cos, this.#sin, this.#atRe, this.#atIm] = [room(), room(), room(), room()]
    this.#stepRe = [room(), room()]
    this.#stepIm = [room(), room()]
  }

  /**
   * @param samples at least two and a half periods long, the middle of which is the moment that is asked about.
   * @param before what was found a moment ago, where it is followed: the string is taken to be as stiff still, and no more.
   * @returns undefined where no series with about this period holds.
   */
  fit(samples: Float64Array, period: number, before?: HarmonicFit): HarmonicFit | undefined {
    const most = Math.min(this.options.partials, Math.floor((USED_BAND / 2) * period))
    if (most < 1 || samples.length < 2.5 * period) return undefined
    const asked = (2 * Math.PI) / period
    if (before) return this.#settle(samples, asked, before.stiffness, most, FOLLOWED_ROUNDS)
    const few = Math.min(samples.length < FEW_PERIODS * period ? FIRST_PARTIALS_LOW : FIRST_PARTIALS, most)
    this.#analyse(samples, asked, 0, few)
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
    const wanted = isStiff && !isShort ? Math.min(STIFF_PARTIALS, most) : most
    let stiffness = startStiffness
    let partials = this.#usable(wanted, startOmega, stiffness)
    this.#analyse(samples, startOmega, stiffness, partials)
    let turned = this.#turn(startOmega, partials, cleans && this.#cells > 1 ? SUPPOSED : BELIEVED)
    const rounds = isStiff ? stiffRounds : cleans && this.#cells > 1 && turned.bend.cubic !== 0 ? 2 : 0
    for (let round = 0; round < rounds; round++) {
      let { omega } = turned
      if (isStiff) {
        const found = this.#stretch(partials, omega)
        stiffness = Math.max(LEAST_STIFFNESS, stiffness + found.change)
        omega *= 1 + found.shift
      }
      partials = Math.min(partials, this.#usable(wanted, omega, stiffness))
      this.#setModel(omega, turned.bend, stiffness, partials)
      if (cleans) this.#analyseRest(samples)
      else this.#analyse(samples, omega, stiffness, partials)
      const isLast = isStiff || round === rounds - 1
      turned = this.#turn(omega, partials, isLast ? BELIEVED : SUPPOSED, cleans ? turned.bend : undefined)
    }
    this.#setModel(turned.omega, turned.bend, stiffness, partials)
    return this.#result(turned, stiffness, partials)
  }

  #setModel(omega: number, bend: Bend, stiffness: number, partials: number): void {
    this.#model = { omega, bend, stiffness, partials }
    for (let k = 0; k < partials; k++) this.#ratio[k] = partialRatio(k + 1, stiffness)
  }

  #usable(most: number, omega: number, stiffness: number): number {
    let k = most
    while (k > 1 && partialRatio(k, stiffness) * omega > USED_BAND * Math.PI) k--
    return k
  }

  #result(turned: Turned, stiffness: number, partials: number): HarmonicFit {
    const power = this.#power
    const powers = new Float64Array(partials)
    let explained = 0
    for (let k = 0; k < partials; k++) {
      powers[k] = (2 * (this.#sumRe[k]! ** 2 + this.#sumIm[k]! ** 2)) / (this.#blocks * this.#length) ** 2
      explained += powers[k]!
    }
    const { omega, relativeSigma } = turned
    return {
      omega,
      relativeSigma,
      stiffness,
      explained: power > 0 ? Math.max(0, Math.min(1, explained / power)) : 0,
      powers,
      power,
    }
  }

  /** Blocks of whole periods, spread over the stretch. */
  #layBlocks(length: number, period: number): void {
    const periods = length / period
    if (periods < FEW_PERIODS) {
      this.#cells = THIRDS
      this.#length = period
      this.#stride = period / THIRDS
      this.#blocks = Math.floor(periods * THIRDS + 1e-9) - THIRDS + 1
    } else {
      this.#cells = 1
      this.#length = Math.round(periods / BLOCKS + 0.25) * period || period
      this.#blocks = Math.max(5, Math.min(MOST_BLOCKS, Math.round(length / this.#length)))
      this.#stride = (length - this.#length) / (this.#blocks - 1)
    }
    for (let b = 0; b < this.#blocks; b++) this.#times[b] = (b - (this.#blocks - 1) / 2) * this.#stride
  }

  /** The Fourier sum of partials 1 … `partials` in each block, its phase told from the middle of the stretch. */
  #analyse(samples: Float64Array, omega: number, stiffness: number, partials: number): void {
    this.#layBlocks(samples.length, (2 * Math.PI) / omega)
    for (let k = 0; k < this.#room; k++) {
      this.#ratio[k] = partialRatio(k + 1, stiffness)
      this.#omega[k] = k < partials ? this.#ratio[k]! * omega : 0
    }
    this.#transform(samples, partials)
  }

  #transform(samples: Float64Array, partials: number): void {
    const room = this.#room
    for (let k = 0; k < room; k++) {
      this.#cos[k] = Math.cos(this.#omega[k]!)
      this.#sin[k] = Math.sin(this.#omega[k]!)
    }
    this.#end = NaN
    this.#stepLengths.fill(NaN)
    if (this.#cells === 1) {
      let power = 0
      for (let b = 0; b < this.#blocks; b++)
        power += this.#sumCell(samples, this.#times[b]!, this.#length, b * room, partials, this.#re, this.#im)
      this.#power = power / (this.#blocks * this.#length)
      return
    }
    const cells = this.#blocks + THIRDS - 1
    let power = 0
    for (let c = 0; c < cells; c++) {
      const centre = (c - (cells - 1) / 2) * this.#stride
      power += this.#sumCell(samples, centre, this.#stride, c * room, partials, this.#cellRe, this.#cellIm)
    }
    this.#power = power / (cells * this.#stride)
    for (let b = 0; b < this.#blocks; b++)
      for (let at = b * room; at < b * room + partials; at++) {
        this.#re[at] = this.#cellRe[at]! + this.#cellRe[at + room]! + this.#cellRe[at + 2 * room]!
        this.#im[at] = this.#cellIm[at]! + this.#cellIm[at + room]! + this.#cellIm[at + 2 * room]!
      }
  }

  /** The Fourier sums of one cell about `centre` (from the middle of the stretch); returns its energy. */
  #sumCell(
    samples: Float64Array,
    centre: number,
    length: number,
    at: number,
    partials: number,
    outRe: Float64Array,
    outIm: Float64Array,
  ): number {
    const middle = (samples.length - 1) / 2
    const from = Math.max(-0.5, middle + centre - length / 2)
    const to = Math.min(samples.length - 0.5, middle + centre + length / 2)
    const first = Math.floor(from + 0.5)
    const last = Math.min(samples.length - 1, Math.floor(to + 0.5))
    const count = last - first + 1
    const block = this.#block
    for (let i = 0; i < count; i++) block[i] = samples[first + i]!
    // Samples that lie half in the cell count by the part that does: so blocks are whole periods long, to a fraction.
    block[0]! *= first + 0.5 - from
    block[count - 1]! *= to - (last - 0.5)
    let energy = 0
    for (let i = 0; i < count; i++) energy += block[i]! * block[i]!
    this.#moveTo(first - middle + count - 1, partials)
    this.#goertzel(count, at, partials, outRe, outIm)
    return energy
  }

  /**
   * Sets each partial's phasor e^(−iω·end) for a cell that ends `end` samples from the middle. Cells are one of two lengths
   * apart: from the second on, phasors are turned by one of two steps.
   */
  #moveTo(end: number, partials: number): void {
    const atRe = this.#atRe
    const atIm = this.#atIm
    const by = end - this.#end
    this.#end = end
    if (Number.isNaN(by)) {
      for (let k = 0; k < partials; k++) {
        atRe[k] = Math.cos(this.#omega[k]! * end)
        atIm[k] = -Math.sin(this.#omega[k]! * end)
      }
      return
    }
    let which = this.#stepLengths.indexOf(by)
    if (which < 0) {
      which = Number.isNaN(this.#stepLengths[0]!) ? 0 : 1
      this.#stepLengths[which] = by
      for (let k = 0; k < partials; k++) {
        this.#stepRe[which]![k] = Math.cos(this.#omega[k]! * by)
        this.#stepIm[which]![k] = -Math.sin(this.#omega[k]! * by)
      }
    }
    const stepRe = this.#stepRe[which]!
    const stepIm = this.#stepIm[which]!
    for (let k = 0; k < partials; k++) {
      const re = atRe[k]! * stepRe[k]! - atIm[k]! * stepIm[k]!
      atIm[k] = atRe[k]! * stepIm[k]! + atIm[k]! * stepRe[k]!
      atRe[k] = re
    }
  }

  /** Goertzel's recursion for four partials at a time, so that one's additions need not wait for another's. */
  #goertzel(count: number, at: number, partials: number, outRe: Float64Array, outIm: Float64Array): void {
    const x = this.#block
    const cos = this.#cos
    for (let k = 0; k < partials; k += 4) {
      const c0 = 2 * cos[k]!
      const c1 = 2 * cos[k + 1]!
      const c2 = 2 * cos[k + 2]!
      const c3 = 2 * cos[k + 3]!
      let p1 = 0
      let p2 = 0
      let q1 = 0
      let q2 = 0
      let r1 = 0
      let r2 = 0
      let s1 = 0
      let s2 = 0
      for (let n = 0; n < count; n++) {
        const v = x[n]!
        const p = v - p2 + c0 * p1
        const q = v - q2 + c1 * q1
        const r = v - r2 + c2 * r1
        const s = v - s2 + c3 * s1
        p2 = p1
        p1 = p
        q2 = q1
        q1 = q
        r2 = r1
        r1 = r
        s2 = s1
        s1 = s
      }
      this.#put(outRe, outIm, at, k, p1, p2)
      this.#put(outRe, outIm, at, k + 1, q1, q2)
      this.#put(outRe, outIm, at, k + 2, r1, r2)
      this.#put(outRe, outIm, at, k + 3, s1, s2)
    }
  }

  /** The Fourier sum that Goertzel's last two values make: e^(−iω·end) (last − e^(−iω) before). */
  #put(outRe: Float64Array, outIm: Float64Array, at: number, k: number, last: number, before: number): void {
    const re = last - this.#cos[k]! * before
    const im = this.#sin[k]! * before
    const c = this.#atRe[k]!
    const s = this.#atIm[k]!
    outRe[at + k] = re * c - im * s
    outIm[at + k] = re * s + im * c
  }

  /** Leaves in `#rest` what the model does not sound; returns its mean square. */
  #takeOut(samples: Float64Array): number {
    const { omega, bend, stiffness, partials } = this.#model
    const { length } = samples
    const middle = (length - 1) / 2
    const scale = 2 / (this.#blocks * this.#length)
    const sumRe = this.#sumRe
    const sumIm = this.#sumIm
    const ratio = this.#ratio
    const rest = this.#rest
    rest.set(samples)
    if (stiffness > 0) {
      for (let k = 0; k < partials; k++)
        subtractPartial(
          rest,
          length,
          sumRe[k]! * scale,
          sumIm[k]! * scale,
          ratio[k]! * omega,
          ratio[k]!,
          bend,
        )
    } else {
      for (let n = 0; n < length; n++) {
        const t = n - middle
        const turn = omega * t + bend.at0 + t * t * (bend.square + bend.cubic * t)
        const c = Math.cos(turn)
        const s = Math.sin(turn)
        let re = c
        let im = s
        let value = 0
        for (let k = 0; k < partials; k++) {
          value += sumRe[k]! * re - sumIm[k]! * im
          const next = re * c - im * s
          im = re * s + im * c
          re = next
        }
        rest[n]! -= scale * value
      }
    }
    let left = 0
    for (let n = 0; n < length; n++) left += rest[n]! ** 2
    return left / length
  }

  /** The sums of each partial once what the model makes of all others is taken out of the sound. */
  #analyseRest(samples: Float64Array): void {
    const { omega, bend, partials } = this.#model
    this.#takeOut(samples)
    const power = this.#power
    const room = this.#room
    const own = 1 / this.#blocks
    for (let k = 0; k < room; k++) this.#omega[k] = k < partials ? this.#ratio[k]! * omega : 0
    this.#transform(this.#rest.subarray(0, samples.length), partials)
    this.#power = power
    for (let b = 0; b < this.#blocks; b++) {
      const theta = meanBend(bend, this.#times[b]!, this.#length)
      for (let k = 0, at = b * room; k < partials; k++, at++) {
        const turn = this.#ratio[k]! * theta
        const c = Math.cos(turn) * own
        const s = Math.sin(turn) * own
        this.#re[at]! += this.#sumRe[k]! * c - this.#sumIm[k]! * s
        this.#im[at]! += this.#sumRe[k]! * s + this.#sumIm[k]! * c
      }
    }
  }

  /** The common phase of all partials from block to block, and the frequency that follows. */
  #turn(omega: number, partials: number, believed: number, known?: Bend): Turned {
    const blocks = this.#blocks
    const slope = known ? 0 : this.#firstSlope(partials)
    if (slope !== 0) this.#unwind(slope, partials)
    for (let b = 0; b < blocks; b++)
      this.#theta[b] = known ? meanBend(known, this.#times[b]!, this.#length) : 0
    let variance = 0
    for (let round = 0; round < 2; round++) {
      this.#sum(partials)
      variance = this.#pull(partials)
    }
    this.#sum(partials)
    // Blocks that overlap hear the same noise: they count as the blocks that would fit side by side.
    const alone = Math.min(1, (this.#stride * (blocks - 1) + this.#length) / (blocks * this.#length))
    const fit = polynomialSlope(this.#times, this.#theta, this.#weights, blocks, variance / alone, {
      believed: this.options.bends ? believed : Infinity,
    })
    // A block tells the mean of its phases: of a cubic c t³ that adds c L²/4 to the slope.
    const flattened = (fit.cubic * this.#length ** 2) / 4
    return {
      omega: omega + slope + fit.slope - flattened,
      relativeSigma: fit.sigma / omega,
      bend: { at0: fit.at0 - (fit.square * this.#length ** 2) / 12, square: fit.square, cubic: fit.cubic },
    }
  }

  /** A first slope of the common phase, from how each partial turns from one block to the next. */
  #firstSlope(partials: number): number {
    const room = this.#room
    const turnRe = this.#turnRe
    const turnIm = this.#turnIm
    turnRe.fill(0)
    turnIm.fill(0)
    for (let b = 0; b + 1 < this.#blocks; b++)
      for (let k = 0, at = b * room; k < partials; k++, at++) {
        const r0 = this.#re[at]!
        const i0 = this.#im[at]!
        const r1 = this.#re[at + room]!
        const i1 = this.#im[at + room]!
        turnRe[k]! += r1 * r0 + i1 * i0
        turnIm[k]! += i1 * r0 - r1 * i0
      }
    let slope = 0
    // Low partials first: they turn least and cannot have turned round. Each step doubles how many are asked.
    for (let upTo = Math.min(2, partials); ; upTo = Math.min(2 * upTo, partials)) {
      let above = 0
      let below = 0
      for (let k = 0; k < upTo; k++) {
        const weight = this.#ratio[k]!
        const turn = weight * slope * this.#stride
        const c = Math.cos(turn)
        const s = Math.sin(turn)
        const re = turnRe[k]!
        const im = turnIm[k]!
        const size = Math.sqrt(re * re + im * im)
        above += size * weight * Math.atan2(im * c - re * s, re * c + im * s)
        below += size * weight * weight
      }
      if (below > 0) slope += above / (below * this.#stride)
      if (upTo === partials) return slope
    }
  }

  /** Takes a slope of the common phase off all sums. */
  #unwind(slope: number, partials: number): void {
    for (let k = 0; k < partials; k++) {
      const step = this.#ratio[k]! * slope * this.#stride
      const c = Math.cos(step)
      const s = -Math.sin(step)
      const start = this.#ratio[k]! * slope * this.#times[0]!
      let re = Math.cos(start)
      let im = -Math.sin(start)
      for (let b = 0, at = k; b < this.#blocks; b++, at += this.#room) {
        const zr = this.#re[at]!
        const zi = this.#im[at]!
        this.#re[at] = zr * re - zi * im
        this.#im[at] = zr * im + zi * re
        const next = re * c - im * s
        im = re * s + im * c
        re = next
      }
    }
  }

  /** Each partial summed over the blocks, the common phase taken off. What is left of it is small: k serves for the ratio. */
  #sum(partials: number): void {
    const sumRe = this.#sumRe
    const sumIm = this.#sumIm
    sumRe.fill(0)
    sumIm.fill(0)
    for (let b = 0; b < this.#blocks; b++) {
      const c = Math.cos(this.#theta[b]!)
      const s = -Math.sin(this.#theta[b]!)
      let re = c
      let im = s
      for (let k = 0, at = b * this.#room; k < partials; k++, at++) {
        sumRe[k]! += this.#re[at]! * re - this.#im[at]! * im
        sumIm[k]! += this.#re[at]! * im + this.#im[at]! * re
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
    const blocks = this.#blocks
    let noise = 0
    for (let b = 0; b < blocks; b++) {
      const c = Math.cos(this.#theta[b]!)
      const s = -Math.sin(this.#theta[b]!)
      let turnRe = c
      let turnIm = s
      let force = 0
      let curve = 0
      for (let k = 0, at = b * this.#room; k < partials; k++, at++) {
        const re = this.#re[at]! * turnRe - this.#im[at]! * turnIm
        const im = this.#re[at]! * turnIm + this.#im[at]! * turnRe
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
    const blocks = this.#blocks
    let spread = 0
    for (let b = 0; b < blocks; b++) spread += this.#times[b]! ** 2
    const slopes = this.#slopes
    let noise = 0
    for (let k = 0; k < partials; k++) {
      const sr = this.#sumRe[k]! / blocks
      const si = this.#sumIm[k]! / blocks
      const size = sr * sr + si * si
      if (!(size > 0)) return none
      let turned = 0
      for (let b = 0, at = k; b < blocks; b++, at += this.#room) {
        const turn = (k + 1) * this.#theta[b]!
        const c = Math.cos(turn)
        const s = Math.sin(turn)
        const r = this.#re[at]!
        const i = this.#im[at]!
        const across = ((i * c - r * s) * sr - (r * c + i * s) * si) / size
        turned += this.#times[b]! * across
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
      const y = slopes[k - 1]! / (this.#ratio[k - 1]! * omega)
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

/** The mean of a bend over a block of `length` about `time`. */
function meanBend({ at0, square, cubic }: Bend, time: number, length: number): number {
  const spread = length ** 2
  return at0 + square * (time ** 2 + spread / 12) + cubic * (time ** 3 + (time * spread) / 4)
}

/**
 * Takes one partial with amplitude re + i im off samples about their middle. Its phase is a cubic of time: a phasor, turned by
 * a phasor that is itself turned, and so once more.
 */
function subtractPartial(
  samples: Float64Array,
  length: number,
  re: number,
  im: number,
  omega: number,
  ratio: number,
  { at0, square, cubic }: Bend,
): void {
  const start = -(length - 1) / 2
  const phase = (t: number) => omega * t + ratio * (at0 + t * t * (square + cubic * t))
  const p0 = phase(start)
  const p1 = phase(start + 1)
  const p2 = phase(start + 2)
  const p3 = phase(start + 3)
  let xr = re * Math.cos(p0) - im * Math.sin(p0)
  let xi = re * Math.sin(p0) + im * Math.cos(p0)
  let dr = Math.cos(p1 - p0)
  let di = Math.sin(p1 - p0)
  const second = p2 - 2 * p1 + p0
  let er = Math.cos(second)
  let ei = Math.sin(second)
  const third = p3 - 3 * p2 + 3 * p1 - p0
  const fr = Math.cos(third)
  const fi = Math.sin(third)
  for (let n = 0; n < length; n++) {
    samples[n]! -= xr
    const x = xr * dr - xi * di
    xi = xr * di + xi * dr
    xr = x
    const d = dr * er - di * ei
    di = dr * ei + di * er
    dr = d
    const e = er * fr - ei * fi
    ei = er * fi + ei * fr
    er = e
  }
}

/** By what partial k lies above partial 1. */
function partialRatio(k: number, stiffness: number): number {
  return stiffness === 0 ? k : k * Math.sqrt((1 + stiffness * k * k) / (1 + stiffness))
}
