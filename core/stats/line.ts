import { studentsT } from './students-t'

export interface Point {
  readonly x: number
  readonly y: number
}

/** A line of least squares through points whose errors are alike and independent. */
export interface FittedLine {
  readonly slope: number
  /** Standard deviation of the slope; NaN with fewer than three points. */
  readonly slopeSigma: number
  /** Of the errors of y, from what the points leave; NaN with fewer than three points. */
  readonly sigma: number
  /** Points beyond the two that make a line. */
  readonly degreesOfFreedom: number
  readonly meanX: number
  readonly meanY: number
  /** Σ (x − mean)² */
  readonly spreadX: number
  at(x: number): number
}

/** Undefined below two different x. Source: any textbook; here N. R. Draper and H. Smith, Applied Regression Analysis, ch. 1. */
export function fitLine(points: readonly Point[]): FittedLine | undefined {
  const n = points.length
  const meanX = points.reduce((sum, p) => sum + p.x, 0) / n
  const meanY = points.reduce((sum, p) => sum + p.y, 0) / n
  const spreadX = points.reduce((sum, p) => sum + (p.x - meanX) ** 2, 0)
  if (!(spreadX > 0)) return undefined
  const slope = points.reduce((sum, p) => sum + (p.x - meanX) * (p.y - meanY), 0) / spreadX
  const at = (x: number) => meanY + slope * (x - meanX)
  const left = points.reduce((sum, p) => sum + (p.y - at(p.x)) ** 2, 0)
  const sigma = n > 2 ? Math.sqrt(left / (n - 2)) : NaN
  return {
    slope,
    slopeSigma: sigma / Math.sqrt(spreadX),
    sigma,
    degreesOfFreedom: n - 2,
    meanX,
    meanY,
    spreadX,
    at,
  }
}

/** Interval of the slope that holds the true one with probability `confidence` (normal errors). */
export function slopeInterval(line: FittedLine, confidence: number): [low: number, high: number] {
  const reach = studentsT((1 + confidence) / 2, line.degreesOfFreedom) * line.slopeSigma
  return [line.slope - reach, line.slope + reach]
}

/**
 * The x at which the true line reaches `y`, with an interval that holds it with probability `confidence`: those x at which
 * the line's own interval holds `y`. Undefined where that is no bounded interval, which is where the slope's interval holds 0.
 * Source: E. C. Fieller, Some problems in interval estimation, J. Roy. Statist. Soc. B 16 (1954) 175.
 */
export function whereLineReaches(
  line: FittedLine,
  y: number,
  confidence: number,
): { readonly x: number; readonly interval: readonly [low: number, high: number] } | undefined {
  const { slope, sigma, meanX, meanY, spreadX, degreesOfFreedom } = line
  const t = studentsT((1 + confidence) / 2, degreesOfFreedom)
  const n = degreesOfFreedom + 2
  // (b² − t²s²/S) u² − 2 b d u + d² − t²s²/n ≤ 0 with u = x − mean x, d = y − mean y.
  const noise = (t * sigma) ** 2
  const a = slope ** 2 - noise / spreadX
  if (!(a > 0)) return undefined
  const d = y - meanY
  const root = Math.sqrt(Math.max(0, (slope * d) ** 2 - a * (d * d - noise / n)))
  return {
    x: meanX + d / slope,
    interval: [meanX + (slope * d - root) / a, meanX + (slope * d + root) / a],
  }
}
