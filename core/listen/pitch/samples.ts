/** Samples in order of time, of which the oldest are let go. Index 0 is the first sample ever. */
export class Samples {
  /** The sample with index `first + i` is `data[i]`. */
  readonly data: Float64Array
  #first = 0
  #length = 0

  /** @param keep samples that stay readable behind the newest. */
  constructor(private readonly keep: number) {
    this.data = new Float64Array(4 * keep)
  }

  /** Index of the oldest that is still there. */
  get first(): number {
    return this.#first
  }

  /** One past the newest. */
  get end(): number {
    return this.#first + this.#length
  }

  /** The first `count` of `values`, of which there may be as many as are kept. */
  append(values: Float64Array, count: number): void {
    if (this.#length + count > this.data.length) {
      const gone = this.#length - this.keep
      this.data.copyWithin(0, gone, this.#length)
      this.#first += gone
      this.#length = this.keep
    }
    this.data.set(values.subarray(0, count), this.#length)
    this.#length += count
  }

  /** Samples `from` … `to` − 1: a view that the next push may change. What lies before the first sample ever is silence. */
  view(from: number, to: number): Float64Array {
    if (from >= this.#first) return this.data.subarray(from - this.#first, to - this.#first)
    const padded = new Float64Array(to - from)
    if (to > this.#first) padded.set(this.data.subarray(0, to - this.#first), this.#first - from)
    return padded
  }
}
