import { partialRatio } from './series'

/** Blocks that a stretch of many periods is cut into. */
const BLOCKS = 8
/** Below this many periods blocks are one period long and overlap by two thirds, made of thirds. */
export const FEW_PERIODS = 6
const THIRDS = 3
export const MOST_BLOCKS = 3 * FEW_PERIODS

/**
 * The Fourier sums of a series of partials in blocks of a stretch of sound. Blocks are whole periods long, to a fraction of a
 * sample, so that the partials of a series are orthogonal in each; phases are told from the middle of the stretch.
 */
export class PartialSums {
  /** Partials that there is room for: four at a time are worked on. */
  readonly room: number
  /** Partial k + 1 in block b, at b · room + k. */
  readonly re: Float64Array
  readonly im: Float64Array
  /** By what partial k + 1 lies above partial 1. */
  readonly ratio: Float64Array
  /** Middle of each block from the middle of the stretch, samples. */
  readonly times = new Float64Array(MOST_BLOCKS)
  /** Blocks that are laid: how many, how long and how far apart, samples. */
  blocks = 0
  length = 0
  stride = 0
  /** Blocks are one period long and overlap by two thirds: there are few periods. */
  isOverlapping = false
  /** Mean square of what the blocks hold. */
  power = 0
  readonly #block: Float64Array
  readonly #cellRe: Float64Array
  readonly #cellIm: Float64Array
  readonly #omega: Float64Array
  readonly #cos: Float64Array
  readonly #sin: Float64Array
  readonly #atRe: Float64Array
  readonly #atIm: Float64Array
  readonly #stepRe: readonly Float64Array[]
  readonly #stepIm: readonly Float64Array[]
  readonly #stepLengths = [NaN, NaN]
  #end = NaN

  /** @param longest stretch, samples. */
  constructor(longest: number, partials: number) {
    this.room = 4 * Math.ceil(partials / 4)
    const row = () => new Float64Array(this.room)
    const blocks = () => new Float64Array(this.room * (MOST_BLOCKS + THIRDS))
    this.re = blocks()
    this.im = blocks()
    this.ratio = row()
    this.#block = new Float64Array(longest + 4)
    this.#cellRe = blocks()
    this.#cellIm = blocks()
    this.#omega = row()
    this.#cos = row()
    this.#sin = row()
    this.#atRe = row()
    this.#atIm = row()
    this.#stepRe = [row(), row()]
    this.#stepIm = [row(), row()]
  }

  /** The Fourier sum of partials 1 … `partials` in each block, its phase told from the middle of the stretch. */
  analyse(samples: Float64Array, omega: number, stiffness: number, partials: number): void {
    this.#lay(samples.length, (2 * Math.PI) / omega)
    for (let k = 0; k < this.room; k++) this.ratio[k] = partialRatio(k + 1, stiffness)
    this.transform(samples, omega, partials)
  }

  /** The same with blocks and ratios as they are. */
  transform(samples: Float64Array, omega: number, partials: number): void {
    const room = this.room
    for (let k = 0; k < room; k++) this.#omega[k] = k < partials ? this.ratio[k]! * omega : 0
    for (let k = 0; k < room; k++) {
      this.#cos[k] = Math.cos(this.#omega[k]!)
      this.#sin[k] = Math.sin(this.#omega[k]!)
    }
    this.#end = NaN
    this.#stepLengths.fill(NaN)
    if (!this.isOverlapping) {
      let power = 0
      for (let b = 0; b < this.blocks; b++)
        power += this.#sumCell(samples, this.times[b]!, this.length, b * room, partials, this.re, this.im)
      this.power = power / (this.blocks * this.length)
      return
    }
    const cells = this.blocks + THIRDS - 1
    let power = 0
    for (let c = 0; c < cells; c++) {
      const centre = (c - (cells - 1) / 2) * this.stride
      power += this.#sumCell(samples, centre, this.stride, c * room, partials, this.#cellRe, this.#cellIm)
    }
    this.power = power / (cells * this.stride)
    for (let b = 0; b < this.blocks; b++)
      for (let at = b * room; at < b * room + partials; at++) {
        this.re[at] = this.#cellRe[at]! + this.#cellRe[at + room]! + this.#cellRe[at + 2 * room]!
        this.im[at] = this.#cellIm[at]! + this.#cellIm[at + room]! + this.#cellIm[at + 2 * room]!
      }
  }

  /** Takes a slope of the common phase off all sums. */
  unwind(slope: number, partials: number): void {
    for (let k = 0; k < partials; k++) {
      const step = this.ratio[k]! * slope * this.stride
      const c = Math.cos(step)
      const s = -Math.sin(step)
      const start = this.ratio[k]! * slope * this.times[0]!
      let re = Math.cos(start)
      let im = -Math.sin(start)
      for (let b = 0, at = k; b < this.blocks; b++, at += this.room) {
        const zr = this.re[at]!
        const zi = this.im[at]!
        this.re[at] = zr * re - zi * im
        this.im[at] = zr * im + zi * re
        const next = re * c - im * s
        im = re * s + im * c
        re = next
      }
    }
  }

  /** Blocks of whole periods, spread over the stretch. */
  #lay(length: number, period: number): void {
    const periods = length / period
    if (periods < FEW_PERIODS) {
      this.isOverlapping = true
      this.length = period
      this.stride = period / THIRDS
      this.blocks = Math.floor(periods * THIRDS + 1e-9) - THIRDS + 1
    } else {
      this.isOverlapping = false
      this.length = Math.round(periods / BLOCKS + 0.25) * period || period
      this.blocks = Math.max(5, Math.min(MOST_BLOCKS, Math.round(length / this.length)))
      this.stride = (length - this.length) / (this.blocks - 1)
    }
    for (let b = 0; b < this.blocks; b++) this.times[b] = (b - (this.blocks - 1) / 2) * this.stride
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
    block.set(samples.subarray(first, last + 1))
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
}
