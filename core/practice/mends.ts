import { proportionInterval } from '../stats'
import type { ExerciseId } from './exercises'
import { findingKey, isJudged, tells, type CheckForPlan } from './facts'
import type { PlanReason, Practised } from './wishes'

/** What one student was given for a finding and practised, and whether a later check still told it. */
export interface Followed {
  readonly exerciseId: ExerciseId
  /** What it was given for: the finding’s code. */
  readonly finding: string
  readonly isMended: boolean
}

/** How often an exercise was practised for something, and how often a later check told it no more. */
export interface MendCount {
  readonly exerciseId: ExerciseId
  readonly finding: string
  readonly tried: number
  readonly mended: number
}

/** Practised on fewer days, it was not tried. Chosen. */
const LEAST_DAYS = 3

/**
 * What followed when a student practised what was planned for a finding, each exercise and finding once. It was practised on some days from
 * the plan’s first day on; the newest check of the same exercise that was judged after the last of them says whether it is told still.
 * Without such a check nothing is counted. That one came after the other is all that it says.
 */
export function followedBy(
  plans: readonly {
    readonly startsOn: string
    readonly cards: readonly { readonly exerciseId: ExerciseId; readonly reason: PlanReason }[]
  }[],
  log: readonly Practised[],
  checks: readonly CheckForPlan[],
): Followed[] {
  const followed = new Map<string, Followed>()
  const newestFirst = [...checks].sort((a, b) => (a.takenOn < b.takenOn ? 1 : -1))
  for (const { startsOn, cards } of [...plans].sort((a, b) => (a.startsOn < b.startsOn ? -1 : 1)))
    for (const { exerciseId, reason } of cards) {
      if (reason.code !== 'finding') continue
      const key = findingKey(reason.finding)
      const id = `${exerciseId} ${key}`
      if (followed.has(id)) continue
      const days = new Set(
        log.filter((one) => one.exerciseId === exerciseId && one.on >= startsOn).map(({ on }) => on),
      )
      const third = [...days].sort()[LEAST_DAYS - 1]
      const source = checks.find((check) => check.takenOn === reason.on && tells(check.verdict, key))
      const later = newestFirst.find(
        (check) =>
          check.exerciseId === source?.exerciseId &&
          third !== undefined &&
          check.takenOn > third &&
          isJudged(check.verdict),
      )
      if (later)
        followed.set(id, { exerciseId, finding: reason.finding.code, isMended: !tells(later.verdict, key) })
    }
  return [...followed.values()]
}

/** The same over many students, what was tried most first. */
export function mendCounts(all: readonly Followed[]): MendCount[] {
  const counts = new Map<string, MendCount>()
  for (const { exerciseId, finding, isMended } of all) {
    const id = `${exerciseId} ${finding}`
    const { tried, mended } = counts.get(id) ?? { tried: 0, mended: 0 }
    counts.set(id, { exerciseId, finding, tried: tried + 1, mended: mended + Number(isMended) })
  }
  return [...counts.values()].sort((a, b) => b.tried - a.tried || (a.exerciseId < b.exerciseId ? -1 : 1))
}

const CONFIDENCE = 0.95

/** The part of hands that it is followed by its mend in, with the interval that these few carry. */
export function mendInterval({
  tried,
  mended,
}: Pick<MendCount, 'tried' | 'mended'>): [low: number, high: number] {
  return proportionInterval(mended, tried, CONFIDENCE)
}
