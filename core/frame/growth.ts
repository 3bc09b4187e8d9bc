import { theilSen } from './theil-sen'

/** One measured span. */
export interface SpanOnDay {
  /** Days on any common count. */
  readonly day: number
  readonly spanMm: number
}

export type Growth =
  | { readonly outcome: 'too_few'; readonly count: number; readonly needed: number }
  | { readonly outcome: 'too_close'; readonly days: number; readonly neededDays: number }
  | {
      readonly outcome: 'line'
      readonly mmPerYear: number
      /** Four times in five the true growth lies in here. */
      readonly intervalMmPerYear: readonly [number, number]
      spanOn(day: number): number
    }

/** Four points are the fewest that Kendall's distribution gives an interval of four in five for. */
export const FEWEST_MEASUREMENTS = 4
export const GROWTH_CONFIDENCE = 0.8
/** Within a season the error of measuring is larger than what a hand grows. Common practice, no source. */
export const SHORTEST_HISTORY_DAYS = 180
const DAYS_PER_YEAR = 365.25

/** How a span grows, from its history; of several measurements on one day the last counts. */
export function growthOf(history: readonly SpanOnDay[]): Growth {
  const byDay = [...new Map(history.map((m) => [m.day, m])).values()]
  if (byDay.length < FEWEST_MEASUREMENTS)
    return { outcome: 'too_few', count: byDay.length, needed: FEWEST_MEASUREMENTS }
  const days = byDay.map((m) => m.day)
  const length = Math.max(...days) - Math.min(...days)
  if (length < SHORTEST_HISTORY_DAYS)
    return { outcome: 'too_close', days: length, neededDays: SHORTEST_HISTORY_DAYS }
  const line = theilSen(
    byDay.map(({ day, spanMm }) => ({ x: day, y: spanMm })),
    GROWTH_CONFIDENCE,
  )
  if (!line?.slopeInterval) return { outcome: 'too_few', count: byDay.length, needed: FEWEST_MEASUREMENTS }
  const [low, high] = line.slopeInterval
  return {
    outcome: 'line',
    mmPerYear: line.slope * DAYS_PER_YEAR,
    intervalMmPerYear: [low * DAYS_PER_YEAR, high * DAYS_PER_YEAR],
    spanOn: (day) => line.intercept + line.slope * day,
  }
}

export type WhenFits =
  | { readonly outcome: 'now' }
  | { readonly outcome: 'not_growing' }
  /** Further off than a history like this can be drawn out. */
  | { readonly outcome: 'far_off' }
  | {
      readonly outcome: 'on'
      readonly day: number
      readonly earliestDay: number
      /** Undefined where the slow end of the growth does not get there. */
      readonly latestDay: number | undefined
    }

/** Nobody can say more of a growing hand. Common practice, no source. */
export const FURTHEST_FORECAST_DAYS = 3 * DAYS_PER_YEAR

/** The day on which a growing span reaches `spanMm`, as seen on `today`. */
export function whenSpanIs(
  growth: Extract<Growth, { outcome: 'line' }>,
  spanMm: number,
  today: number,
): WhenFits {
  const lacking = spanMm - growth.spanOn(today)
  if (lacking <= 0) return { outcome: 'now' }
  const daysAt = (mmPerYear: number) => (lacking / mmPerYear) * DAYS_PER_YEAR
  const [slow, fast] = growth.intervalMmPerYear
  if (growth.mmPerYear <= 0) return { outcome: 'not_growing' }
  const days = daysAt(growth.mmPerYear)
  if (days > FURTHEST_FORECAST_DAYS) return { outcome: 'far_off' }
  return {
    outcome: 'on',
    day: today + days,
    earliestDay: today + daysAt(fast),
    latestDay: slow > 0 && daysAt(slow) <= 2 * FURTHEST_FORECAST_DAYS ? today + daysAt(slow) : undefined,
  }
}
