/** What a harmonic fit found in a stretch of sound. */
export interface HarmonicFit {
  /** Of partial 1 in the middle of the stretch, radians a sample. */
  readonly omega: number
  /** One standard deviation of `omega` from the noise that was left, relative to it. */
  readonly relativeSigma: number
  /** B of a stiff string; 0 where the partials are whole multiples as far as the noise lets tell. */
  readonly stiffness: number
  /** Part of the sound's power that lies in its partials, 0 … 1. */
  readonly explained: number
  /** Power of each partial, the first at index 0. A view that the next fit changes. */
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

export const FIT_OPTIONS: FitOptions = { partials: 40, bends: true, stiff: true, cleans: true }

const MOST_BLOCKS = 24
const FEWEST_BLOCKS = 7
/** A bend or a stiffness is believed when it is this many times its standard deviation. */
const BELIEVED = 3
/** A stiff string's partials leave this part, at most, of what whole multiples leave unexplained. */
const STIFF_LEAVES = 0.9
/** Less than any string's. */
const LEAST_STIFFNESS = 2e-5
/** Partials that a first, cautious fit uses. */
const FIRST_PARTIALS = 5

/**
 * Fits one harmonic series to a stretch of sound, from a period that is known to about half a percent.
 *
 * The stretch is cut into blocks of whole periods, in which the partials are orthogonal. What each partial is in each block
 * (a Fourier sum at its frequency) turns from block to block by k times one common phase, and that phase against time gives
 * the frequency: of all partials together, each by its k² A², which is the approximate non-linear least squares estimator
 * and reaches the bound of Cramér and Rao. The phase may bend (a cubic, where the bend is significant), so that vibrato is
 * not averaged; its slope is taken in the middle. What the partials turn beyond k times the common phase is regressed on
 * k² − 1: the stiffness of the string, where it is significant.
 * Source: M. G. Christensen and A. Jakobsson, Multi-Pitch Estimation (2009), ch. 2; for the bound D. C. Rife and R. R. Boorstyn,
 * IEEE Trans. Inf. Theory 20 (1974) 591.
 */
export class HarmonicFitter {
  readonly #block: Float64Array
  readonly #rest: Float64Array
  readonly #bentRe: Float64Array
  readonly #bentIm: Float64Array
  readonly #turnedRe: Float64Array
  readonly #turnedIm: Float64Array
  readonly #re: Float64Array
  readonly #im: Float64Array
  readonly #sumRe: Float64Array
  readonly #sumIm: Float64Array
  readonly #theta = new Float64Array(MOST_BLOCKS)
  readonly #times = new Float64Array(MOST_BLOCKS)
  readonly #weights = new Float64Array(MOST_BLOCKS)
  readonly #powers: Float64Array
  readonly #partialOmega: Float64Array
  #blocks = 0
  #blockLength = 0
  #stride = 0
  /** Mean square of the blocks. */
  #power = 0

  /** @param longest stretch that will be fitted, samples. */
  constructor(
    longest: number,
    private readonly options: FitOptions = FIT_OPTIONS,
  ) {
    const { partials } = options
    this.#block = new Float64Array(longest + 4)
    this.#rest = new Float64Array(longest)
    this.#bentRe = new Float64Array(longest)
    this.#bentIm = new Float64Array(longest)
    this.#turnedRe = new Float64Array(longest)
    this.#turnedIm = new Float64Array(longest)
    this.#re = new Float64Array(partials * MOST_BLOCKS)
    this.#im = new Float64Array(partials * MOST_BLOCKS)
    this.#sumRe = new Float64Array(partials)
    this.#sumIm = new Float64Array(partials)
    this.#powers = new Float64Array(partials)
    this.#partialOmega = new Float64Array(partials)
  }

  /** @param samples at least three periods long, the middle of which is the moment that is asked about. */
  fit(samples: Float64Array, period: number): HarmonicFit | undefined {
    const most = Math.min(this.options.partials, Math.floor(0.42 * period))
    if (most < 1 || samples.length < 2 * period) return undefined
    let omega = (2 * Math.PI) / period
    const few = Math.min(FIRST_PARTIALS, most)
    this.#layBlocks(samples.length, period)
    this.#analyse(samples, omega, 0, few)
    const first = this.#turn(omega, few, 0)
    omega = first.omega
    if (!(omega > 0) || Math.abs((omega * period) / (2 * Math.PI) - 1) > 0.06) return undefined
    const suspected = this.options.stiff && few > 2 ? this.#stiffness(few, omega, 0).believed : 0
    const harmonic = this.#settle(samples, omega, 0, most)
    if (suspected === 0) return harmonic
    const powers = this.#powers.slice()
    const stiff = this.#settle(samples, omega, suspected, most)
    if (1 - stiff.explained < STIFF_LEAVES * (1 - harmonic.explained)) return stiff
    this.#powers.set(powers)
    return harmonic
  }

  /**
   * The fit with all partials. A round's frequency takes the blocks to whole periods and the partials to the middle of their
   * bins. That is all for whole multiples over many periods. Stretched partials, and those that bend within a long period,
   * are not orthogonal: what the other partials leave in a bin is taken out by further rounds on what the model leaves.
   */
  #settle(samples: Float64Array, startOmega: number, startStiffness: number, most: number): HarmonicFit {
    const isStiff = startStiffness > 0
    const rounds = !this.options.cleans ? (isStiff ? 4 : 1) : isStiff ? 6 : this.#blocks === FEWEST_BLOCKS ? 3 : 1
    let stiffness = startStiffness
    let usable = this.#usable(most, startOmega, stiffness)
    let turned: Turned = { omega: startOmega, relativeSigma: 0, bend: STRAIGHT }
    for (let round = 0; round < rounds; round++) {
      const { omega, bend } = turned
      const partials = this.#usable(most, omega, stiffness)
      if (round > 0 && this.options.cleans) {
        usable = Math.min(usable, partials)
        this.#analyseRest(samples, omega, stiffness, usable, bend)
      } else {
        usable = partials
        this.#layBlocks(samples.length, (2 * Math.PI) / omega)
        this.#analyse(samples, omega, stiffness, usable)
      }
      turned = this.#turn(omega, usable, stiffness, round > 0 && this.options.cleans ? bend : undefined)
      if (isStiff && round < rounds - 1) {
        const found = this.#stiffness(usable, turned.omega, stiffness)
        stiffness = Math.max(LEAST_STIFFNESS, stiffness + found.change)
        turned = { ...turned, omega: turned.omega * (1 + found.shift) }
      }
    }
    return this.#result(turned.omega, stiffness, turned.relativeSigma, usable)
  }

  #usable(most: number, omega: number, stiffness: number): number {
    let k = most
    while (k > 1 && partial(k, stiffness) * omega > 0.84 * Math.PI) k--
    return k
  }

  /** About as many blocks as there are periods, each of whole periods; where there are few, they overlap. */
  #layBlocks(length: number, period: number): void {
    const whole = Math.max(1, Math.round(length / period / 10))
    this.#blockLength = whole * period
    const apart = Math.floor(length / this.#blockLength)
    this.#blocks = Math.min(MOST_BLOCKS, Math.max(FEWEST_BLOCKS, apart))
    this.#stride = (length - 1 - this.#blockLength) / (this.#blocks - 1)
    for (let b = 0; b < this.#blocks; b++) this.#times[b] = (b - (this.#blocks - 1) / 2) * this.#stride
  }

  /** The Fourier sum of partials 1 … `partials` in each block, its phase told from the middle of the stretch. */
  #analyse(samples: Float64Array, omega: number, stiffness: number, partials: number): void {
    const middle = (samples.length - 1) / 2
    for (let k = 1; k <= partials; k++) this.#partialOmega[k - 1] = partial(k, stiffness) * omega
    let power = 0
    for (let b = 0; b < this.#blocks; b++) {
      const from = b * this.#stride
      const to = from + this.#blockLength
      const first = Math.floor(from + 0.5)
      const last = Math.min(samples.length - 1, Math.floor(to + 0.5))
      const count = last - first + 1
      const block = this.#block
      for (let i = 0; i < count; i++) block[i] = samples[first + i]!
      // Samples that lie half in the block count by the part that does: the block is a whole number of periods long.
      block[0]! *= first + 0.5 - from
      block[count - 1]! *= Math.min(1, to - (last - 0.5))
      for (let i = 0; i < count; i++) power += block[i]! * block[i]!
      this.#goertzel(count, first - middle, b, partials)
    }
    this.#power = power / (this.#blocks * this.#blockLength)
  }

  /** The same sums once what the model makes of all other partials is taken out of the sound. */
  #analyseRest(samples: Float64Array, omega: number, stiffness: number, partials: number, bend: Bend): void {
    const rest = this.#rest.subarray(0, samples.length)
    const middle = (samples.length - 1) / 2
    const scale = 2 / (this.#blocks * this.#blockLength)
    rest.set(samples)
    for (let n = 0; n < samples.length; n++) {
      const t = n - middle
      const theta = bend.at0 + t * t * (bend.square + bend.cubic * t)
      this.#bentRe[n] = Math.cos(theta)
      this.#bentIm[n] = Math.sin(theta)
    }
    for (let k = 1; k <= partials; k++) {
      const w = partial(k, stiffness) * omega
      // The bend of partial k is k times the common one: each partial's is the one before it, turned once more.
      const [stepRe, stepIm] = [Math.cos(w), Math.sin(w)]
      let oRe = Math.cos(-w * middle)
      let oIm = Math.sin(-w * middle)
      const [aRe, aIm] = [scale * this.#sumRe[k - 1]!, scale * this.#sumIm[k - 1]!]
      for (let n = 0; n < samples.length; n++) {
        const bRe = this.#bentRe[n]!
        const bIm = this.#bentIm[n]!
        if (k === 1) {
          this.#turnedRe[n] = bRe
          this.#turnedIm[n] = bIm
        } else {
          const tRe = this.#turnedRe[n]!
          const tIm = this.#turnedIm[n]!
          this.#turnedRe[n] = tRe * bRe - tIm * bIm
          this.#turnedIm[n] = tRe * bIm + tIm * bRe
        }
        const re = oRe * this.#turnedRe[n]! - oIm * this.#turnedIm[n]!
        const im = oRe * this.#turnedIm[n]! + oIm * this.#turnedRe[n]!
        rest[n]! -= aRe * re - aIm * im
        const next = oRe * stepRe - oIm * stepIm
        oIm = oRe * stepIm + oIm * stepRe
        oRe = next
      }
    }
    const power = this.#power
    const blockLength = this.#blockLength
    const [sumRe, sumIm] = [this.#sumRe.slice(0, partials), this.#sumIm.slice(0, partials)]
    this.#analyse(rest, omega, stiffness, partials)
    this.#power = power
    for (let k = 0; k < partials; k++)
      for (let b = 0; b < this.#blocks; b++) {
        const turn = partial(k + 1, stiffness) * meanBend(bend, this.#times[b]!, blockLength)
        const [c, s] = [Math.cos(turn), Math.sin(turn)]
        const [re, im] = [sumRe[k]! / this.#blocks, sumIm[k]! / this.#blocks]
        this.#re[k * MOST_BLOCKS + b]! += re * c - im * s
        this.#im[k * MOST_BLOCKS + b]! += re * s + im * c
      }
  }

  /** Goertzel's recursion for two partials at a time: two, so that one's additions wait less for the other's. */
  #goertzel(count: number, offset: number, b: number, partials: number): void {
    const x = this.#block
    for (let k = 0; k < partials; k += 2) {
      const w0 = this.#partialOmega[k]!
      const w1 = k + 1 < partials ? this.#partialOmega[k + 1]! : w0
      const c0 = 2 * Math.cos(w0)
      const c1 = 2 * Math.cos(w1)
      let a1 = 0
      let a2 = 0
      let b1 = 0
      let b2 = 0
      for (let n = 0; n < count; n++) {
        const v = x[n]!
        const a = v + c0 * a1 - a2
        const bb = v + c1 * b1 - b2
        a2 = a1
        a1 = a
        b2 = b1
        b1 = bb
      }
      this.#put(k, b, w0, count, offset, a1, a2)
      if (k + 1 < partials) this.#put(k + 1, b, w1, count, offset, b1, b2)
    }
  }

  #put(k: number, b: number, w: number, count: number, offset: number, s1: number, s2: number): void {
    const re = s1 - Math.cos(w) * s2
    const im = Math.sin(w) * s2
    const turn = -w * (offset + count - 1)
    const c = Math.cos(turn)
    const s = Math.sin(turn)
    this.#re[k * MOST_BLOCKS + b] = re * c - im * s
    this.#im[k * MOST_BLOCKS + b] = re * s + im * c
  }

  /** The common phase of all partials from block to block, and the frequency that follows. */
  #turn(omega: number, partials: number, stiffness: number, known?: Bend): Turned {
    const { bends } = this.options
    const blocks = this.#blocks
    const start = known ? 0 : this.#firstSlope(partials, stiffness)
    for (let b = 0; b < blocks; b++)
      this.#theta[b] = known ? meanBend(known, this.#times[b]!, this.#blockLength) : start * this.#times[b]!
    let variance = 0
    for (let round = 0; round < 3; round++) {
      this.#sum(partials, stiffness)
      variance = this.#pull(partials, stiffness)
    }
    // Blocks that overlap hear the same noise: they count as the blocks that would fit side by side.
    const alone = Math.min(1, (this.#stride * (blocks - 1) + this.#blockLength) / (blocks * this.#blockLength))
    const fit = slopeOf(this.#times, this.#theta, this.#weights, blocks, variance / alone, bends)
    // A block tells the mean of its phases: of a cubic c t³ that adds c L²/4 to the slope.
    const flattened = (fit.cubic * this.#blockLength ** 2) / 4
    const bend = {
      at0: fit.at0 - (fit.square * this.#blockLength ** 2) / 12,
      square: fit.square,
      cubic: fit.cubic,
    }
    return { omega: omega + fit.slope - flattened, relativeSigma: fit.sigma / omega, bend }
  }

  /** A first slope of the common phase, from how each partial turns from one block to the next. */
  #firstSlope(partials: number, stiffness: number): number {
    let slope = 0
    // Low partials first: they turn least and cannot have turned round. Each step doubles how many are asked.
    for (let upTo = Math.min(2, partials); ; upTo = Math.min(2 * upTo, partials)) {
      let above = 0
      let below = 0
      for (let k = 0; k < upTo; k++) {
        const weight = partial(k + 1, stiffness)
        const turn = weight * slope * this.#stride
        const c = Math.cos(turn)
        const s = Math.sin(turn)
        let re = 0
        let im = 0
        const at = k * MOST_BLOCKS
        for (let b = 0; b + 1 < this.#blocks; b++) {
          const [r0, i0, r1, i1] = [this.#re[at + b]!, this.#im[at + b]!, this.#re[at + b + 1]!, this.#im[at + b + 1]!]
          re += r1 * r0 + i1 * i0
          im += i1 * r0 - r1 * i0
        }
        const turned = Math.atan2(im * c - re * s, re * c + im * s)
        const size = Math.hypot(re, im)
        above += size * weight * turned
        below += size * weight * weight
      }
      if (below > 0) slope += above / (below * this.#stride)
      if (upTo === partials) return slope
    }
  }

  /** Each partial summed over the blocks, the common phase taken off. */
  #sum(partials: number, stiffness: number): void {
    for (let k = 0; k < partials; k++) {
      const weight = partial(k + 1, stiffness)
      let re = 0
      let im = 0
      for (let b = 0; b < this.#blocks; b++) {
        const turn = weight * this.#theta[b]!
        const c = Math.cos(turn)
        const s = Math.sin(turn)
        const r = this.#re[k * MOST_BLOCKS + b]!
        const i = this.#im[k * MOST_BLOCKS + b]!
        re += r * c + i * s
        im += i * c - r * s
      }
      this.#sumRe[k] = re
      this.#sumIm[k] = im
    }
  }

  /**
   * One step of Newton's for the common phase of each block; the weight of a block is the curvature there. Returns the noise's
   * power a bin, by which a weight becomes a variance.
   */
  #pull(partials: number, stiffness: number): number {
    let noise = 0
    for (let b = 0; b < this.#blocks; b++) {
      let force = 0
      let curve = 0
      for (let k = 0; k < partials; k++) {
        const weight = partial(k + 1, stiffness)
        const turn = weight * this.#theta[b]!
        const c = Math.cos(turn)
        const s = Math.sin(turn)
        const r = this.#re[k * MOST_BLOCKS + b]!
        const i = this.#im[k * MOST_BLOCKS + b]!
        const [re, im] = [r * c + i * s, i * c - r * s]
        const [sr, si] = [this.#sumRe[k]! / this.#blocks, this.#sumIm[k]! / this.#blocks]
        // Along the partial's own direction is signal, across it is phase.
        const along = re * sr + im * si
        const across = im * sr - re * si
        force += weight * across
        curve += weight * weight * along
        const size = sr * sr + si * si
        if (size > 0) noise += (across * across) / size
      }
      const step = curve > 0 ? force / curve : 0
      this.#theta[b]! += Math.max(-0.5, Math.min(0.5, step))
      this.#weights[b] = Math.max(curve, 1e-300)
    }
    return noise / (partials * this.#blocks)
  }

  /** What the partials turn beyond k times the common phase, as a stiffness beyond that which was reckoned with. */
  #stiffness(
    partials: number,
    omega: number,
    stiffness: number,
  ): { believed: number; change: number; shift: number } {
    const none = { believed: 0, change: 0, shift: 0 }
    let spread = 0
    for (let b = 0; b < this.#blocks; b++) spread += this.#times[b]! ** 2
    let [w, wu, wuu, wy, wuy] = [0, 0, 0, 0, 0]
    let noise = 0
    const slopes = this.#powers
    for (let k = 0; k < partials; k++) {
      const at = k * MOST_BLOCKS
      const [sr, si] = [this.#sumRe[k]! / this.#blocks, this.#sumIm[k]! / this.#blocks]
      const size = sr * sr + si * si
      if (!(size > 0)) return none
      let turned = 0
      for (let b = 0; b < this.#blocks; b++) {
        const turn = partial(k + 1, stiffness) * this.#theta[b]!
        const [c, s] = [Math.cos(turn), Math.sin(turn)]
        const [r, i] = [this.#re[at + b]!, this.#im[at + b]!]
        const [re, im] = [r * c + i * s, i * c - r * s]
        const across = (im * sr - re * si) / size
        turned += this.#times[b]! * across
        noise += across * across * size
      }
      slopes[k] = turned / spread
      noise -= (turned * turned * size) / spread
    }
    noise /= partials * (this.#blocks - 1)
    for (let k = 1; k <= partials; k++) {
      const weight = k * k * (this.#sumRe[k - 1]! ** 2 + this.#sumIm[k - 1]! ** 2)
      const u = (k * k - 1) / 2
      const y = slopes[k - 1]! / (partial(k, stiffness) * omega)
      w += weight
      wu += weight * u
      wuu += weight * u * u
      wy += weight * y
      wuy += weight * u * y
    }
    const across = wuu - (wu * wu) / w
    if (!(across > 0)) return none
    const change = (wuy - (wu * wy) / w) / across
    const shift = (wy - change * wu) / w
    const sigma = Math.sqrt((noise * this.#blocks * this.#blocks) / (across * spread)) / omega
    const isBelieved = change > BELIEVED * sigma && change > LEAST_STIFFNESS
    return { believed: isBelieved ? change : 0, change, shift }
  }

  #result(
    omega: number,
    stiffness: number,
    relativeSigma: number,
    partials: number,
  ): HarmonicFit {
    const power = this.#power
    let explained = 0
    for (let k = 0; k < partials; k++) {
      const size = this.#sumRe[k]! ** 2 + this.#sumIm[k]! ** 2
      this.#powers[k] = (2 * size) / (this.#blocks * this.#blockLength) ** 2
      explained += this.#powers[k]!
    }
    return {
      omega,
      relativeSigma,
      stiffness,
      explained: power > 0 ? Math.min(1, explained / power) : 0,
      powers: this.#powers.subarray(0, partials),
      power,
    }
  }
}

/** The common phase beyond its slope, against the time from the middle: at0 + square t² + cubic t³. */
interface Bend {
  readonly at0: number
  readonly square: number
  readonly cubic: number
}

const STRAIGHT: Bend = { at0: 0, square: 0, cubic: 0 }

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

/** By what partial k lies above partial 1. */
function partial(k: number, stiffness: number): number {
  return stiffness === 0 ? k : k * Math.sqrt((1 + stiffness * k * k) / (1 + stiffness))
}

/**
 * The slope in the middle of y against x, as a parabola's or, where its third power is significant and `bends`, a cubic's;
 * weighted least squares by the normal equations, x scaled to −1 … 1.
 *
 * @param variance of y times its weight.
 */
function slopeOf(
  x: Float64Array,
  y: Float64Array,
  weight: Float64Array,
  count: number,
  variance: number,
  bends: boolean,
): { at0: number; slope: number; square: number; cubic: number; sigma: number } {
  const scale = Math.abs(x[count - 1]!)
  // Sums of powers 0 … 6, and of y times powers 0 … 3.
  const s = [0, 0, 0, 0, 0, 0, 0]
  const t = [0, 0, 0, 0]
  for (let b = 0; b < count; b++) {
    const u = x[b]! / scale
    let p = weight[b]!
    for (let i = 0; i <= 6; i++) {
      s[i]! += p
      if (i <= 3) t[i]! += p * y[b]!
      p *= u
    }
  }
  const square = solve(s, t, 3)
  let best = square
  if (bends && count > 5) {
    const cubic = solve(s, t, 4)
    if (Math.abs(cubic.c[3]!) > BELIEVED * Math.sqrt(variance * cubic.cov3)) best = cubic
  }
  return {
    at0: best.c[0]!,
    slope: best.c[1]! / scale,
    square: best.c[2]! / scale ** 2,
    sigma: Math.sqrt(variance * best.cov1) / scale,
    cubic: (best.c[3] ?? 0) / scale ** 3,
  }
}

/** Solves the normal equations of a polynomial with `n` coefficients; `cov1` and `cov3` are those of its inverse's diagonal. */
function solve(s: number[], t: number[], n: number): { c: number[]; cov1: number; cov3: number } {
  const a: number[][] = Array.from({ length: n }, (_, i) => [
    ...Array.from({ length: n }, (_, j) => s[i + j]!),
    t[i]!,
    i === 1 ? 1 : 0,
    i === 3 ? 1 : 0,
  ])
  for (let i = 0; i < n; i++) {
    const pivot = a[i]![i]!
    for (let j = i; j < n + 3; j++) a[i]![j]! /= pivot
    for (let r = 0; r < n; r++)
      if (r !== i) {
        const by = a[r]![i]!
        if (by !== 0) for (let j = i; j < n + 3; j++) a[r]![j]! -= by * a[i]![j]!
      }
  }
  return { c: a.map((row) => row[n]!), cov1: a[1]![n + 1]!, cov3: n > 3 ? a[3]![n + 2]! : 0 }
}
