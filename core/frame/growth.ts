import { median } from 'd3-array'
import { fitLine, slopeInterval, whereLineReaches, type FittedLine } from '../stats'
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
      /** Days of measurements that fit with none of the others; they are left out. */
      readonly wildDays: readonly number[]
      /** Days and mm. */
      readonly line: FittedLine
      spanOn(day: number): number
    }

/** Three points tell how far they lie off their line by one number only; with four an interval begins to mean something. */
export const FEWEST_MEASUREMENTS = 4
export const GROWTH_CONFIDENCE = 0.8
/** Within a season the error of measuring is larger than what a hand grows. Common practice, no source. */
export const SHORTEST_HISTORY_DAYS = 180
/** A hand laid out twice differs by about a millimetre; by this much, something else was measured. Common practice, no source. */
const WILD_MM = 5
/** So many times the usual distance from the line is no error of measuring either: that of normal errors 1 in 4 million. */
const WILD_SIGMAS = 5
/** From a median distance to a standard deviation. Source: any text on robust statistics, 1 / 0.6745. */
const SIGMAS_PER_MEDIAN = 1.4826
const DAYS_PER_YEAR = 365.25

/**
 * How a span grows, from its history; of several measurements on one day the last counts. A line of least squares, after
 * those are left out that lie wildly off the line of Theil and Sen.
 */
export function growthOf(history: readonly SpanOnDay[]): Growth {
  const byDay = [...new Map(history.map((m) => [m.day, { x: m.day, y: m.spanMm }])).values()]
  const wild = wildOf(byDay)
  const points = byDay.filter((point) => !wild.includes(point))
  if (points.length < FEWEST_MEASUREMENTS)
    return { outcome: 'too_few', count: points.length, needed: FEWEST_MEASUREMENTS }
  const days = points.map((point) => point.x)
  const length = Math.max(...days) - Math.min(...days)
  if (length < SHORTEST_HISTORY_DAYS)
    return { outcome: 'too_close', days: length, neededDays: SHORTEST_HISTORY_DAYS }
  const line = fitLine(points)
  if (!line) return { outcome: 'too_close', days: length, neededDays: SHORTEST_HISTORY_DAYS }
  const [low, high] = slopeInterval(line, GROWTH_CONFIDENCE)
  return {
    outcome: 'line',
    mmPerYear: line.slope * DAYS_PER_YEAR,
    intervalMmPerYear: [low * DAYS_PER_YEAR, high * DAYS_PER_YEAR],
    wildDays: wild.map((point) => point.x),
    line,
    spanOn: (day) => line.at(day),
  }
}

function wildOf<P extends { readonly x: number; readonly y: number }>(points: readonly P[]): P[] {
  const line = theilSen(points, GROWTH_CONFIDENCE)
  if (!line) return []
  const off = (point: P) => Math.abs(point.y - line.intercept - line.slope * point.x)
  const usual = SIGMAS_PER_MEDIAN * (median(points, off) ?? 0)
  return points.filter((point) => off(point) > Math.max(WILD_MM, WILD_SIGMAS * usual))
}

export interface SpanDoubt {
  readonly code: 'shrunk' | 'shot_up' | 'alone'
  /** The last measurement before it. */
  readonly lastMm: number
  readonly lastDay: number
}

/** A span grows no faster than a child's hand in its quickest year, mm. Common practice, no source. */
const MOST_GROWTH_MM = 12

/**
 * Why a span would be measured once more before it is kept: hands do not shrink, nor shoot up, and one that fits with none of the
 * others would be left out of the growth while it decided the size.
 */
export function spanDoubt(history: readonly SpanOnDay[], span: SpanOnDay): SpanDoubt | undefined {
  const before = history.filter(({ day }) => day <= span.day).sort((a, b) => b.day - a.day)
  const wild = new Set(wildOf(before.map(({ day, spanMm }) => ({ x: day, y: spanMm }))).map(({ x }) => x))
  const last = before.find(({ day }) => !wild.has(day)) ?? before[0]
  if (!last) return undefined
  const most = WILD_MM + (MOST_GROWTH_MM * (span.day - last.day)) / DAYS_PER_YEAR
  const told = { lastMm: last.spanMm, lastDay: last.day }
  if (span.spanMm < last.spanMm - WILD_MM) return { code: 'shrunk', ...told }
  if (span.spanMm > last.spanMm + most) return { code: 'shot_up', ...told }
  const points = [...history.filter(({ day }) => day !== span.day), span].map((m) => ({
    x: m.day,
    y: m.spanMm,
  }))
  return points.length >= FEWEST_MEASUREMENTS && wildOf(points).some(({ x }) => x === span.day)
    ? { code: 'alone', ...told }
    : undefined
}

export type WhenFits =
  | { readonly outcome: 'now' }
  | { readonly outcome: 'not_growing' }
  /** The measurements do not yet tell the growth well enough to name a day. */
  | { readonly outcome: 'too_early' }
  /** Further off than a history like this can be drawn out. */
  | { readonly outcome: 'far_off' }
  | {
      readonly outcome: 'on'
      readonly day: number
      /** Four times in five the day lies in here. */
      readonly earliestDay: number
      readonly latestDay: number
    }

/** Nobody can say more of a growing hand. Common practice, no source. */
export const FURTHEST_FORECAST_DAYS = 3 * DAYS_PER_YEAR

/**
 * The day on which a growing span reaches `spanMm`, as seen on `today`: what the growth and what today's span leave open
 * both count. Where they leave too much open, no day is named.
 */
export function whenSpanIs(
  growth: Extract<Growth, { outcome: 'line' }>,
  spanMm: number,
  today: number,
): WhenFits {
  if (growth.spanOn(today) >= spanMm) return { outcome: 'now' }
  if (growth.mmPerYear <= 0) return { outcome: 'not_growing' }
  const reached = whereLineReaches(growth.line, spanMm, GROWTH_CONFIDENCE)
  if (!reached) return { outcome: 'too_early' }
  if (reached.x - today > FURTHEST_FORECAST_DAYS) return { outcome: 'far_off' }
  const [earliestDay, latestDay] = reached.interval
  if (latestDay - today > 2 * FURTHEST_FORECAST_DAYS) return { outcome: 'too_early' }
  return { outcome: 'on', day: reached.x, earliestDay, latestDay }
}
