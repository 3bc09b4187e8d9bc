import { median } from 'd3-array'
import { studentsT } from '../stats'

/** A line through points that a few wrong ones do not bend. */
export interface RobustLine {
  readonly slope: number
  readonly intercept: number
  /** Interval of the slope; undefined where there are too few points for the confidence asked. */
  readonly slopeInterval: readonly [low: number, high: number] | undefined
  readonly count: number
}

/**
 * The line of Theil and Sen: its slope is the median of the slopes of all pairs of points, its height the median of what
 * they leave. The interval is taken from the ordered pair slopes: the number of falling pairs among n points has Kendall's
 * distribution, so the r-th smallest and the r-th largest slope enclose the true one with probability
 * 1 − 2 P(falling pairs < r). The smallest such interval with at least `confidence` is given; of more than {@link EXACT_UP_TO}
 * points the normal distribution stands for Kendall's (Sen's § 4). Points with the same x make no pair. Undefined below two
 * different x.
 * Source: P. K. Sen, Estimates of the regression coefficient based on Kendall's tau, J. Am. Stat. Assoc. 63 (1968) 1379.
 */
export function theilSen(
  points: readonly { readonly x: number; readonly y: number }[],
  confidence: number,
): RobustLine | undefined {
  const pairs: number[] = []
  points.forEach((a, i) => {
    for (let j = i + 1; j < points.length; j++) {
      const b = points[j]!
      if (a.x !== b.x) pairs.push((b.y - a.y) / (b.x - a.x))
    }
  })
  const slopes = Float64Array.from(pairs).sort()
  if (slopes.length === 0) return undefined
  const half = slopes.length >> 1
  const slope = slopes.length % 2 === 1 ? slopes[half]! : (slopes[half - 1]! + slopes[half]!) / 2
  const intercept = median(points, (p) => p.y - slope * p.x)!
  const distinct = new Set(points.map((p) => p.x)).size
  const rank = rankFor(distinct, confidence)
  return {
    slope,
    intercept,
    slopeInterval: rank === 0 ? undefined : [slopes[rank - 1]!, slopes[slopes.length - rank]!],
    count: points.length,
  }
}

/** Up to so many points Kendall’s distribution is counted out; beyond, the normal one differs from it by less than a rank. */
const EXACT_UP_TO = 40
/** Degrees of freedom with which Student’s t is the normal distribution. */
const NORMAL = 1e6

/** The largest rank r with 1 − 2 P(falling pairs < r) ≥ confidence for n points; 0 where there is none. */
function rankFor(n: number, confidence: number): number {
  if (n > EXACT_UP_TO) {
    const pairs = (n * (n - 1)) / 2
    const sigma = Math.sqrt((n * (n - 1) * (2 * n + 5)) / 18)
    return Math.max(0, Math.floor((pairs - studentsT((1 + confidence) / 2, NORMAL) * sigma) / 2))
  }
  const share = fallingPairShares(n)
  let below = 0
  let rank = 0
  while (rank < share.length / 2) {
    below += share[rank]!
    if (1 - 2 * below < confidence) break
    rank++
  }
  return rank
}

/** Probability of each number of falling pairs among n points in random order (the Mahonian numbers over n!). */
function fallingPairShares(n: number): number[] {
  let shares = [1]
  for (let size = 2; size <= n; size++) {
    const next = new Array<number>(shares.length + size - 1).fill(0)
    shares.forEach((share, pairs) => {
      for (let more = 0; more < size; more++) next[pairs + more]! += share / size
    })
    shares = next
  }
  return shares
}
