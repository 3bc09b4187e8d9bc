import { median, rollups } from 'd3-array'
import { theilSen } from '../frame'

/** One check of a history: its day, counted from any, and what was measured. */
export interface TrendPoint {
  readonly day: number
  readonly value: number
}

/** What a history does with time, or that it is too short to say. */
export type Trend =
  | { readonly outcome: 'too_few'; readonly weeks: number }
  | {
      readonly outcome: 'line'
      readonly perMonth: number
      /** Holds the true slope nineteen times in twenty. */
      readonly interval: readonly [low: number, high: number]
      on(day: number): number
    }

/** Fewer weeks with a check, or a shorter time, show no trend. Six points are the fewest whose interval leaves the extremes. */
export const FEWEST_WEEKS = 6
export const SHORTEST_TREND_DAYS = 42
const CONFIDENCE = 0.95
const DAYS_A_MONTH = 365.25 / 12
const WEEK = 7

/** A robust line through the medians of the weeks: checks of one lesson are one word. Method: {@link theilSen}. */
export function trendOf(points: readonly TrendPoint[]): Trend {
  const weeks = rollups(
    points,
    (own) => ({ x: median(own, ({ day }) => day)!, y: median(own, ({ value }) => value)! }),
    ({ day }) => Math.floor(day / WEEK),
  ).map(([, week]) => week)
  const days = weeks.map(({ x }) => x)
  const isShort = Math.max(...days) - Math.min(...days) < SHORTEST_TREND_DAYS
  const line = weeks.length < FEWEST_WEEKS || isShort ? undefined : theilSen(weeks, CONFIDENCE)
  if (!line?.slopeInterval) return { outcome: 'too_few', weeks: weeks.length }
  const [low, high] = line.slopeInterval
  return {
    outcome: 'line',
    perMonth: line.slope * DAYS_A_MONTH,
    interval: [low * DAYS_A_MONTH, high * DAYS_A_MONTH],
    on: (day) => line.intercept + line.slope * day,
  }
}
