import { rollups, sum } from 'd3-array'
import { dayNumber, effectOf, type Effect, type Finding, type Measured, type ExerciseId } from '#core'
import type { PastCheck, Plan, PracticeEntry } from '#contracts'
import { studioDay } from '../../words/shown'

/** Minutes of one week, from its first day. */
export interface PracticeWeek {
  readonly from: Date
  readonly minutes: number
  readonly days: number
}

const MS_PER_DAY = 86_400_000
const WEEK = 7

/** What was practised, week by week; weeks in which nothing was are left out. */
export function practiceWeeks(entries: readonly PracticeEntry[]): PracticeWeek[] {
  return rollups(
    entries,
    (own) => ({
      minutes: sum(own, ({ minutes }) => minutes ?? 0),
      days: new Set(own.map(({ on }) => on)).size,
    }),
    ({ on }) => Math.floor(dayNumber(on) / WEEK),
  )
    .map(([week, of]) => ({ from: new Date(week * WEEK * MS_PER_DAY), ...of }))
    .sort((a, b) => a.from.getTime() - b.from.getTime())
}

/** What became of what an exercise was to mend. */
export interface PracticeEffect {
  readonly exerciseId: ExerciseId
  readonly unit: 'cents' | 'mm'
  readonly finding: Finding
  /** ISO date of the first time. */
  readonly since: string
  readonly times: number
  readonly effect: Effect
}

/** The exercises that were planned for a finding and practised, each with what that number did meanwhile; the newest first. */
export function practiceEffects(
  checks: readonly PastCheck[],
  plans: readonly Plan[],
  entries: readonly PracticeEntry[],
): PracticeEffect[] {
  const meant = new Map<ExerciseId, Finding>()
  // Newest plan first: what it was for at last.
  for (const { cards } of plans)
    for (const { exerciseId, reason } of cards)
      if (reason.code === 'finding' && !meant.has(exerciseId)) meant.set(exerciseId, reason.finding)
  return [...meant]
    .flatMap(([exerciseId, finding]): PracticeEffect[] => {
      const of = measureOf(finding)
      const own = entries.filter((entry) => entry.exerciseId === exerciseId)
      const since = own[0]?.on
      if (!of || since === undefined) return []
      const looks = checks.flatMap(({ takenAt, summary }): Measured[] => {
        const value = summary && of.value(summary)
        const day = dayNumber(studioDay(new Date(takenAt)))
        return value === null || value === undefined ? [] : [{ day, off: Math.abs(value) }]
      })
      const effect = effectOf(looks, dayNumber(since))
      return [{ exerciseId, unit: of.unit, finding, since, times: own.length, effect }]
    })
    .sort((a, b) => (a.since < b.since ? 1 : -1))
}

type Summary = NonNullable<PastCheck['summary']>

/** The number of a check in which a finding shows; undefined where no check has one. */
function measureOf(
  finding: Finding,
): { readonly unit: 'cents' | 'mm'; value: (summary: Summary) => number | null | undefined } | undefined {
  switch (finding.code) {
    case 'whole_hand':
      return { unit: 'cents', value: ({ biasCents }) => biasCents }
    case 'frame':
      return { unit: 'mm', value: ({ frameMm }) => frameMm }
    case 'creep':
      return { unit: 'cents', value: ({ driftCents }) => driftCents }
    case 'scatter':
      return { unit: 'cents', value: ({ scatterCents }) => scatterCents }
    case 'finger':
      return {
        unit: 'cents',
        value: ({ fingers }) => fingers.find(({ finger }) => finger === finding.finger)?.cents,
      }
    default:
      return undefined
  }
}
