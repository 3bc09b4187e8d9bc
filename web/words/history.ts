import { FEWEST_WEEKS, SHORTEST_TREND_DAYS, type Trend } from '#core'
import { count, toUnit, unitName } from './numbers'

export interface MeasureWords {
  readonly name: string
  readonly unit: 'cents' | 'mm'
  /** What a check must have to tell it. */
  readonly waits: string
}

/** What is followed over time, as its chart is headed. */
export const MEASURE_WORDS = {
  bias: { name: 'On average', unit: 'cents', waits: 'a stopped note' },
  scatter: { name: 'Steadiness', unit: 'cents', waits: 'two fingers that each play twice' },
  frame: { name: 'Frame', unit: 'mm', waits: 'the first and the last finger on one string' },
  drift: { name: 'First to last', unit: 'cents', waits: 'six notes played in order' },
} as const satisfies Record<string, MeasureWords>

/** What a chart is headed with: what it is, and in what. */
export function measureCaption({ name, unit }: MeasureWords): string {
  return `${name}, ${unit === 'mm' ? unitName() : unit}`
}

/** What is not in any check yet, and what it waits for: said once, in place of charts with nothing in them. */
export function waitsSentence(waiting: readonly MeasureWords[]): string {
  return waiting.map(({ name, waits }) => `${name} waits for a check with ${waits}.`).join(' ')
}

/** When a trend is drawn, where none is yet: said once for all that is followed. */
export function noTrendSentence(weeks: number): string {
  return weeks < FEWEST_WEEKS
    ? `A trend is drawn once ${FEWEST_WEEKS} weeks have a check: so far ${count(weeks, 'week')}.`
    : `A trend is drawn once the checks span ${count(SHORTEST_TREND_DAYS / 7, 'week')}.`
}

/** A trend with its interval, that none is to be seen, or that the history is too short. */
export function trendSentence(trend: Trend, { unit }: MeasureWords): string {
  if (trend.outcome === 'too_few') return 'Too few checks for a trend.'
  const [low, high] = trend.interval
  const range = `${signed(low, unit)} to ${signed(high, unit)}`
  const named = unit === 'mm' ? unitName() : unit
  return low <= 0 && high >= 0
    ? `No trend to be seen (${range} ${named} a month).`
    : `${signed(trend.perMonth, unit)} ${named} a month (${range}).`
}

function signed(value: number, unit: MeasureWords['unit']): string {
  const size = Math.abs(value)
  const text = unit === 'cents' ? size.toFixed(1) : toUnit(size).toFixed(unitName() === 'mm' ? 2 : 3)
  if (Number(text) === 0) return text
  return value < 0 ? `−${text}` : `+${text}`
}
