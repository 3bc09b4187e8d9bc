import { extent } from 'd3-array'
import { dayNumber, tapeLives, trendOf, type TapeEvent, type TapeLife, type Trend } from '#core'
import type { History, PastCheck } from '#contracts'
import { studioDay } from '../../words/shown'

/** What is followed over time. */
export const MEASURES = ['bias', 'scatter', 'frame', 'drift'] as const
export type Measure = (typeof MEASURES)[number]

const VALUE: Readonly<Record<Measure, (summary: NonNullable<PastCheck['summary']>) => number | null>> = {
  bias: ({ biasCents }) => biasCents,
  scatter: ({ scatterCents }) => scatterCents,
  frame: ({ frameMm }) => frameMm,
  drift: ({ driftCents }) => driftCents,
}

export interface SeriesPoint {
  readonly checkId: string
  readonly at: Date
  readonly value: number
}

export interface Series {
  readonly measure: Measure
  readonly points: readonly SeriesPoint[]
  readonly trend: Trend
}

const MS_PER_DAY = 86_400_000

/** One measure of every check that has it, oldest first, and what it does with time. */
export function seriesOf(measure: Measure, checks: readonly PastCheck[]): Series {
  const points = checks.flatMap(({ id, takenAt, summary }): SeriesPoint[] => {
    const value = summary && VALUE[measure](summary)
    return value === null ? [] : [{ checkId: id, at: new Date(takenAt), value }]
  })
  const trend = trendOf(points.map(({ at, value }) => ({ day: at.getTime() / MS_PER_DAY, value })))
  return { measure, points, trend }
}

/** Height of the line on an instant. */
export function trendOn(trend: Extract<Trend, { outcome: 'line' }>, at: Date): number {
  return trend.on(at.getTime() / MS_PER_DAY)
}

/** Something that lasted: an instrument that was held, a tape that lay, what was worked on. */
export interface Span {
  readonly id: string
  readonly name: string
  readonly from: Date
  readonly to: Date
}

/** Of a day, or of the studio’s day of a moment. */
const atOf = (iso: string) =>
  new Date(dayNumber(iso.length === 10 ? iso : studioDay(new Date(iso))) * MS_PER_DAY)

/** Instruments, tapes and assignments as spans, cut to the time that is shown. */
export function spansOf(history: History, today: string, nameOfMark: (markId: string) => string) {
  const now = atOf(today)
  const instruments = history.loans.map((loan): Span => ({
    id: `${loan.instrumentId} ${loan.fromDate}`,
    name: loan.label,
    from: atOf(loan.fromDate),
    to: loan.toDate === null ? now : atOf(loan.toDate),
  }))
  const tapes = [...new Set(history.tapes.map(({ instrumentId }) => instrumentId))].flatMap((instrumentId) =>
    livesOf(history, instrumentId).map(({ markId, laidOn, endedOn }): Span => ({
      id: `${instrumentId} ${markId} ${laidOn}`,
      name: nameOfMark(markId),
      from: atOf(laidOn),
      to: endedOn === null ? now : atOf(endedOn),
    })),
  )
  return { instruments, tapes, works: worksOf(history.checks, now) }
}

function livesOf({ tapes }: History, instrumentId: string): readonly TapeLife[] {
  const events = tapes
    .filter((event) => event.instrumentId === instrumentId)
    .map(({ markId, on, kind }) => ({ markId, on, kind, placeMm: 0 }) as TapeEvent)
  return tapeLives(events)
}

/** What was worked on, each until something else was. */
function worksOf(checks: readonly PastCheck[], now: Date): Span[] {
  const told = checks.flatMap(({ id, takenAt, decision }) =>
    decision?.workOn ? [{ id, name: decision.workOn, from: new Date(takenAt) }] : [],
  )
  const changes = told.filter(({ name }, i) => name !== told[i - 1]?.name)
  return changes.map((work, i) => ({ ...work, to: changes[i + 1]?.from ?? now }))
}

/** From the first check to today. */
export function timeOf(history: History, today: string): [Date, Date] {
  const [first = atOf(today)] = extent(history.checks, ({ takenAt }) => new Date(takenAt))
  const last = new Date(atOf(today).getTime() + MS_PER_DAY)
  return [first, last]
}

/** The check to hold the last one against: the oldest of the same exercise, else the oldest. */
export function usualPair(checks: readonly PastCheck[]): readonly [string, string] | undefined {
  const readable = checks.filter(({ summary }) => summary !== null)
  const later = readable.at(-1)
  if (!later || readable.length < 2) return undefined
  const exercise = JSON.stringify(later.exercise)
  const same = readable.find((check) => check !== later && JSON.stringify(check.exercise) === exercise)
  return [(same ?? readable[0]!).id, later.id]
}
