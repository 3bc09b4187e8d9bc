import type { Trend } from '#core'

export interface MeasureWords {
  readonly caption: string
  readonly unit: 'cents' | 'mm'
}

/** What is followed over time, as its chart is headed. */
export const MEASURE_WORDS = {
  bias: { caption: 'On average, cents', unit: 'cents' },
  scatter: { caption: 'Steadiness, cents', unit: 'cents' },
  frame: { caption: 'Frame, mm', unit: 'mm' },
  drift: { caption: 'First to last, cents', unit: 'cents' },
} as const satisfies Record<string, MeasureWords>

/** A trend with its interval, that none is to be seen, or that the history is too short. */
export function trendSentence(trend: Trend, { unit }: MeasureWords): string {
  if (trend.outcome === 'too_few') return 'Too few checks for a trend.'
  const [low, high] = trend.interval
  const range = `${signed(low, unit)} to ${signed(high, unit)}`
  return low <= 0 && high >= 0
    ? `No trend to be seen (${range} ${unit} a month).`
    : `${signed(trend.perMonth, unit)} ${unit} a month (${range}).`
}

function signed(value: number, unit: MeasureWords['unit']): string {
  const text = Math.abs(value).toFixed(unit === 'mm' ? 2 : 1)
  if (Number(text) === 0) return text
  return value < 0 ? `−${text}` : `+${text}`
}
