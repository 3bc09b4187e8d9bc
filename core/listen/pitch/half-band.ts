/** Taps on one side of the middle; every second one is zero. */
const REACH = 23
/** Kaiser's window parameter for 70 dB. */
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

/** The odd taps 1, 3, 5 … of a half-band low-pass with 70 dB; its middle is 1/2. Source: J. F. Kaiser's window design, 1974. */
const ODD_TAPS = Float64Array.from({ length: (REACH + 1) / 2 }, (_, i) => {
  const n = 2 * i + 1
  const window = besselI0(KAISER_BETA * Math.sqrt(1 - (n / (REACH + 1)) ** 2)) / besselI0(KAISER_BETA)
  return (Math.sin((Math.PI * n) / 2) / (Math.PI * n)) * window
})

/** Samples in order of time, of which the oldest are let go; index 0 is the first sample ever. */
export class Samples {
  #data: Float64Array
  #from = 0
  #length = 0

  /** @param keep samples that stay readable behind the newest. */
  constructor(private readonly keep: number) {
    this.#data = new Float64Array(4 * keep)
  }

  /** One past the newest. */
  get end(): number {
    return this.#from + this.#length
  }

  push(value: number): void {
    if (this.#length === this.#data.length) this.#letGo()
    this.#data[this.#length++] = value
  }

  /** Samples `from` … `to` − 1; a view that the next push may change. What lies before the first sample is silence. */
  view(from: number, to: number): Float64Array {
    if (from >= this.#from) return this.#data.subarray(from - this.#from, to - this.#from)
    const padded = new Float64Array(to - from)
    if (to > this.#from) padded.set(this.#data.subarray(0, to - this.#from), this.#from - from)
    return padded
  }

  #letGo(): void {
    this.#data.copyWithin(0, this.#length - this.keep, this.#length)
    this.#from += this.#length - this.keep
    this.#length = this.keep
  }
}

/**
 * Half the sampling rate of what is pushed: sample j of the output lies at sample 2j of the input. The upper half of the band
 * is taken out by 70 dB above 0.29 of the input's rate and passed below 0.21.
 */
export class HalfBand {
  readonly #input = new Samples(64)
  #next = 0

  constructor(private readonly output: (value: number) => void) {}

  push(value: number): void {
    this.#input.push(value)
    while (this.#input.end > 2 * this.#next + REACH) {
      const middle = 2 * this.#next++
      const near = this.#input.view(middle - REACH, middle + REACH + 1)
      let sum = near[REACH]! / 2
      for (let i = 0; i < ODD_TAPS.length; i++)
        sum += ODD_TAPS[i]! * (near[REACH - 1 - 2 * i]! + near[REACH + 1 + 2 * i]!)
      this.output(sum)
    }
  }
}
