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
  let best = solve(s, t, 3)
  if (count > 4 && believed < Infinity) {
    const cubic = solve(s, t, 4)
    if (Math.abs(cubic.c[3]!) > believed * Math.sqrt(variance * cubic.variance3)) best = cubic
  }
  const [at0, slope, square, cubic = 0] = best.c as [number, number, number, number?]
  return {
    at0,
    slope: slope / scale,
    square: square / scale ** 2,
    cubic: cubic / scale ** 3,
    sigma: Math.sqrt(variance * best.variance1) / scale,
  }
}

/** Normal equations of a polynomial with `n` coefficients, solved; the variances are of its inverse's diagonal. */
function solve(s: number[], t: number[], n: number): { c: number[]; variance1: number; variance3: number } {
  const a: number[][] = []
  for (let i = 0; i < n; i++) {
    const row = s.slice(i, i + n)
    row.push(t[i]!, i === 1 ? 1 : 0, i === 3 ? 1 : 0)
    a.push(row)
  }
  for (let i = 0; i < n; i++) {
    const row = a[i]!
    const pivot = row[i]!
    for (let j = i; j < n + 3; j++) row[j]! /= pivot
    for (let r = 0; r < n; r++) {
      const by = a[r]![i]!
      if (r !== i && by !== 0) for (let j = i; j < n + 3; j++) a[r]![j]! -= by * row[j]!
    }
  }
  return { c: a.map((row) => row[n]!), variance1: a[1]![n + 1]!, variance3: n > 3 ? a[3]![n + 2]! : 0 }
}
