/** A parabola's or a cubic's coefficients at x = 0; `sigma` is one standard deviation of the slope. */
export interface PolynomialFit {
  readonly at0: number
  readonly slope: number
  readonly square: number
  /** 0 where a parabola says it as well. */
  readonly cubic: number
  readonly sigma: number
}

/**
 * The slope at x = 0 of y against x (evenly spread about 0): of a parabola, or of a cubic where the third power is at least
 * `believed` times its standard deviation. Weighted least squares by the normal equations, x scaled to −1 … 1.
 *
 * @param variance of y times its weight.
 */
export function polynomialSlope(
  x: Float64Array,
  y: Float64Array,
  weight: Float64Array,
  count: number,
  variance: number,
  { believed }: { readonly believed: number },
): PolynomialFit {
  const scale = Math.abs(x[count - 1]!)
  // Sums of powers 0 … 6, and of y times powers 0 … 3.
  const s = SUMS
  const t = PRODUCTS
  s.fill(0)
  t.fill(0)
  for (let b = 0; b < count; b++) {
    const u = x[b]! / scale
    let p = weight[b]!
    for (let i = 0; i <= 6; i++) {
      s[i]! += p
      if (i <= 3) t[i]! += p * y[b]!
      p *= u
    }
  }
  const parabola = solve(3, false)
  if (count > 4 && believed < Infinity) {
    const cubic = solve(4, true)
    if (Math.abs(COEFFICIENTS[3]!) > believed * Math.sqrt(variance * cubic)) {
      const slopeVariance = solve(4, false)
      return fitOf(scale, variance * slopeVariance, COEFFICIENTS[3]!)
    }
    return fitOf(scale, variance * solve(3, false), 0)
  }
  return fitOf(scale, variance * parabola, 0)
}

function fitOf(scale: number, variance: number, cubic: number): PolynomialFit {
  return {
    at0: COEFFICIENTS[0]!,
    slope: COEFFICIENTS[1]! / scale,
    square: COEFFICIENTS[2]! / scale ** 2,
    cubic: cubic / scale ** 3,
    sigma: Math.sqrt(variance) / scale,
  }
}

// Worked on by one call after the other: nothing is made anew at each of thousands of frames.
const SUMS = new Float64Array(7)
const PRODUCTS = new Float64Array(4)
const COEFFICIENTS = new Float64Array(4)
const WIDTH = 6
const MATRIX = new Float64Array(4 * WIDTH)

/**
 * Solves the normal equations of a polynomial with `n` coefficients, which it leaves in `COEFFICIENTS`; returns the variance
 * of the last one (`ofLast`) or of the slope, in units of y's.
 */
function solve(n: number, ofLast: boolean): number {
  const a = MATRIX
  const asked = ofLast ? n - 1 : 1
  for (let i = 0; i < n; i++) {
    for (let j = 0; j < n; j++) a[i * WIDTH + j] = SUMS[i + j]!
    a[i * WIDTH + n] = PRODUCTS[i]!
    a[i * WIDTH + n + 1] = i === asked ? 1 : 0
  }
  for (let i = 0; i < n; i++) {
    const pivot = a[i * WIDTH + i]!
    for (let j = i; j < n + 2; j++) a[i * WIDTH + j]! /= pivot
    for (let r = 0; r < n; r++) {
      const by = a[r * WIDTH + i]!
      if (r === i || by === 0) continue
      for (let j = i; j < n + 2; j++) a[r * WIDTH + j]! -= by * a[i * WIDTH + j]!
    }
  }
  for (let i = 0; i < n; i++) COEFFICIENTS[i] = a[i * WIDTH + n]!
  return a[asked * WIDTH + n + 1]!
}
