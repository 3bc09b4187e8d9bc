import { Samples } from './samples'

/** Taps on one side of the middle of a sharp filter; every second one is zero. */
export const HALF_BAND_REACH = 31
/** The same where what lies near the edge will be taken out by the next filter. */
export const WIDE_REACH = 15
/** Kaiser’s window parameter for 70 dB. */
const KAISER_BETA = 6.8

/** Modified Bessel function of the first kind, order 0, by its power series. */
function besselI0(x: number): number {
  let sum = 1
  for (let term = 1, k = 1; term > 1e-12 * sum; k++) {
    term *= (x / (2 * k)) ** 2
    sum += term
  }
  return sum
}

/**
 * The odd taps 1, 3, 5 … of a half-band low-pass; its middle one is 1/2.
 * Source: window design after J. F. Kaiser; A. V. Oppenheim and R. W. Schafer, Discrete-Time Signal Processing, § 7.6.
 */
function oddTaps(reach: number): Float64Array {
  return Float64Array.from({ length: (reach + 1) / 2 }, (_, i) => {
    const n = 2 * i + 1
    const across = Math.sqrt(1 - (n / (reach + 1)) ** 2)
    return (
      (Math.sin((Math.PI * n) / 2) / (Math.PI * n)) * (besselI0(KAISER_BETA * across) / besselI0(KAISER_BETA))
    )
  })
}

/**
 * Half the sampling rate of `input`: sample j of the output lies at sample 2j of the input. A sharp one takes 70 dB out
 * above 0.29 of the input's rate and nothing below 0.21, a wide one above 0.33 and below 0.17.
 */
export class HalfBand {
  readonly output: Samples
  #next = 0
  readonly #taps: Float64Array
  readonly #made = new Float64Array(256)

  /**
   * @param keep samples of the output that stay readable.
   * @param reach taps on one side of the middle.
   */
  constructor(
    private readonly input: Samples,
    keep: number,
    private readonly reach: number = HALF_BAND_REACH,
  ) {
    this.output = new Samples(keep)
    this.#taps = oddTaps(reach)
  }

  /** Makes what can be made of the input so far. */
  run(): void {
    const ready = Math.floor((this.input.end - this.reach - 1) / 2) + 1
    while (this.#next < ready) {
      const count = Math.min(this.#made.length, ready - this.#next)
      this.#make(count)
      this.output.append(this.#made, count)
      this.#next += count
    }
  }

  /** The next `count` samples, four at a time, so that one's additions need not wait for another's. */
  #make(count: number): void {
    const { data, first } = this.input
    const made = this.#made
    const taps = this.#taps
    const reach = this.reach
    const middle = 2 * this.#next - first
    let j = 0
    // Before the first sample ever there is silence.
    for (; j < count && middle + 2 * j < reach; j++) {
      const at = middle + 2 * j
      let sum = data[at]! / 2
      for (let i = 0, n = 1; n <= reach; i++, n += 2)
        sum += taps[i]! * ((at >= n ? data[at - n]! : 0) + data[at + n]!)
      made[j] = sum
    }
    for (; j + 3 < count; j += 4) {
      const at = middle + 2 * j
      let a = data[at]! / 2
      let b = data[at + 2]! / 2
      let c = data[at + 4]! / 2
      let d = data[at + 6]! / 2
      for (let i = 0, below = at - 1, above = at + 1; i < taps.length; i++, below -= 2, above += 2) {
        const tap = taps[i]!
        a += tap * (data[below]! + data[above]!)
        b += tap * (data[below + 2]! + data[above + 2]!)
        c += tap * (data[below + 4]! + data[above + 4]!)
        d += tap * (data[below + 6]! + data[above + 6]!)
      }
      made[j] = a
      made[j + 1] = b
      made[j + 2] = c
      made[j + 3] = d
    }
    for (; j < count; j++) {
      const at = middle + 2 * j
      let sum = data[at]! / 2
      for (let i = 0, n = 1; n <= reach; i++, n += 2) sum += taps[i]! * (data[at - n]! + data[at + n]!)
      made[j] = sum
    }
  }
}
