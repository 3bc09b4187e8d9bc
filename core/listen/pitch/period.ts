import FFT from 'fft.js'

/** A period that a stretch of sound may have. */
export interface PeriodCandidate {
  /** In samples, not whole. */
  readonly period: number
  /** Correlation with itself one period later; 1 for what repeats exactly. */
  readonly clarity: number
}

/** A peak that is this near to the highest may be the period instead; the shortest such is taken first. */
const NEAR_HIGHEST = 0.8
/** Longest lag in parts of the stretch: beyond it two few periods are left to compare. */
const LONGEST_LAG = 0.37
const CANDIDATES = 3

/**
 * Finds the periods of a stretch of `length` samples: peaks of its autocorrelation, the stretch tapered by
 * Hann's window and the autocorrelation divided by the window's own, so that a long period is no worse off than a short one.
 * Source: P. Boersma, Accurate short-term analysis of the fundamental frequency, Proc. Inst. Phonetic Sci. Amsterdam 17 (1993) 97.
 */
export class PeriodFinder {
  readonly #fft: FFT
  /** Room for the stretch and the longest lag: what is correlated does not come round. */
  readonly #size: number
  readonly #window: Float64Array
  readonly #windowCorrelation: Float64Array
  readonly #padded: number[]
  readonly #spectrum: number[]
  readonly #correlation: Float64Array

  constructor(private readonly length: number) {
    this.#size = 2 ** Math.ceil(Math.log2(length * (1 + LONGEST_LAG) + 4))
    this.#fft = new FFT(this.#size)
    this.#window = Float64Array.from(
      { length },
      (_, i) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / length),
    )
    this.#padded = new Array<number>(this.#size).fill(0)
    this.#spectrum = this.#fft.createComplexArray()
    this.#correlation = new Float64Array(length)
    this.#correlate(this.#window)
    this.#windowCorrelation = this.#correlation.slice()
  }

  /** The likeliest periods of `samples` within these bounds, the likeliest first; none of silence. */
  find(samples: Float64Array, shortest: number, longest: number): PeriodCandidate[] {
    for (let i = 0; i < this.length; i++) this.#padded[i] = samples[i]! * this.#window[i]!
    this.#correlate(undefined)
    const r = this.#correlation
    const zero = r[0]!
    if (!(zero > 0)) return []
    const last = Math.min(Math.ceil(longest) + 2, Math.floor(LONGEST_LAG * this.length))
    const scale = this.#windowCorrelation[0]! / zero
    for (let lag = 0; lag <= last; lag++) r[lag]! *= scale / this.#windowCorrelation[lag]!
    return this.#peaks(shortest, Math.min(longest, last - 1)).map((peak) => this.#sharpen(peak, last))
  }

  /** The autocorrelation of what is in `#padded`, by its power spectrum (Wiener and Khinchin). */
  #correlate(of: Float64Array | undefined): void {
    if (of) for (let i = 0; i < this.length; i++) this.#padded[i] = of[i]!
    this.#fft.realTransform(this.#spectrum, this.#padded)
    const power = this.#padded
    const half = this.#size / 2
    for (let i = 0; i <= half; i++) {
      const value = this.#spectrum[2 * i]! ** 2 + this.#spectrum[2 * i + 1]! ** 2
      power[i] = value
      if (i > 0 && i < half) power[this.#size - i] = value
    }
    // A real, even series has a real, even transform: the forward one serves.
    this.#fft.realTransform(this.#spectrum, power)
    const lags = Math.min(this.length, half)
    for (let i = 0; i < lags; i++) this.#correlation[i] = this.#spectrum[2 * i]!
    this.#padded.fill(0)
  }

  #peaks(shortest: number, longest: number): PeriodCandidate[] {
    const r = this.#correlation
    const found: PeriodCandidate[] = []
    // The peak at no lag is not one: it ends where the correlation first turns upward.
    let lag = 1
    while (lag < longest && r[lag]! < r[lag - 1]!) lag++
    for (; lag <= longest; lag++)
      if (r[lag]! > 0 && r[lag]! >= r[lag - 1]! && r[lag]! > r[lag + 1]!) {
        const peak = this.#parabola(lag)
        if (peak.period >= shortest) found.push(peak)
      }
    const highest = Math.max(...found.map(({ clarity }) => clarity))
    const first = found.findIndex(({ clarity }) => clarity >= NEAR_HIGHEST * highest)
    if (first < 0) return []
    const others = found
      .filter((_, i) => i !== first)
      .sort((a, b) => b.clarity - a.clarity)
      .slice(0, CANDIDATES - 1)
    return [found[first]!, ...others]
  }

  /** The vertex of the parabola through a peak and its neighbours. */
  #parabola(lag: number): PeriodCandidate {
    const r = this.#correlation
    const [before, at, after] = [r[lag - 1]!, r[lag]!, r[lag + 1]!]
    const bend = before - 2 * at + after
    const shift = bend < 0 ? Math.max(-0.5, Math.min(0.5, (before - after) / (2 * bend))) : 0
    return { period: lag + shift, clarity: at - ((before - after) * shift) / 4 }
  }

  /** The same period read from later peaks, where an error of the lag is shared among several periods. */
  #sharpen(candidate: PeriodCandidate, last: number): PeriodCandidate {
    let { period } = candidate
    for (let times = 2; times * period < last - 1 && times <= 64; times *= 2) {
      const near = Math.round(times * period)
      const reach = Math.max(1, Math.floor(period / 4))
      let best = near
      for (let lag = near - reach; lag <= near + reach; lag++)
        if (lag < last && this.#correlation[lag]! > this.#correlation[best]!) best = lag
      const peak = this.#parabola(best)
      if (Math.abs(best - near) === reach || peak.clarity < 0.7 * candidate.clarity) break
      period = peak.period / times
    }
    return { period, clarity: candidate.clarity }
  }
}
