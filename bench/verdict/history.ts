// How long five years of checks take to be drawn as series with trends.
import { median } from 'd3-array'
import { seededSource } from '../../core'
import type { PastCheck } from '../../contracts'
import { MEASURES, seriesOf } from '../../web/features/history/series'

/** Four checks a week for five years, as a history has them. */
const checks = Array.from({ length: 1000 }, (_, i): PastCheck => {
  const source = seededSource(i)
  return {
    id: String(i),
    takenAt: new Date(Date.UTC(2021, 8, 1) + i * 1.8 * 86_400_000).toISOString(),
    exercise: null,
    decision: null,
    instrumentId: '',
    lengthMm: 328,
    toleranceCents: 10,
    tapesCovered: false,
    isRejudged: false,
    summary: {
      count: 30,
      biasCents: 10 * source(),
      scatterCents: 5 + source(),
      frameMm: -3 * source(),
      driftCents: source(),
      fingers: [],
    },
  }
})

/** Of five times, ms. */
export function historyMs(): number {
  const took = Array.from({ length: 5 }, () => {
    const from = performance.now()
    for (const measure of MEASURES) seriesOf(measure, checks)
    return performance.now() - from
  })
  return median(took)!
}
