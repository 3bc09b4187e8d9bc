import { proportionInterval } from '../stats'
import type { SetupAnswer } from '../setup'
import type { ExerciseId } from './exercises'
import { findingKey, isJudged, tells, type CheckForPlan } from './facts'
import type { PlanReason, Practised } from './wishes'

/** What one student was given for something and practised, and whether it was there still when it was looked at again. */
export interface Followed {
  readonly exerciseId: ExerciseId
  /** What it was given for: the finding’s code, or `setup ` and the item. */
  readonly reason: string
  readonly isMended: boolean
}

/** One answer of a setup round. */
export interface SetupLook {
  readonly itemId: string
  readonly answer: SetupAnswer
  /** ISO date. */
  readonly on: string
}

/** What a student’s file has of half a year. */
export interface FollowedFile {
  readonly plans: readonly {
    readonly startsOn: string
    readonly cards: readonly { readonly exerciseId: ExerciseId; readonly reason: PlanReason }[]
  }[]
  readonly log: readonly Practised[]
  readonly checks: readonly CheckForPlan[]
  readonly setup: readonly SetupLook[]
}

/** How often an exercise was practised for something, and how often a later check told it no more. */
export interface MendCount {
  readonly exerciseId: ExerciseId
  readonly reason: string
  readonly tried: number
  readonly mended: number
}

/** Practised on fewer days, it was not tried. Chosen. */
const LEAST_DAYS = 3

/**
 * What followed when a student practised what was planned for a finding, or for an item of the setup; each exercise and reason once. It was
 * practised on some days from the plan’s first day on, and whether it is there still is said by the newest later look: of a finding the
 * newest check of the same exercise that was judged, of an item its newest answer, where only “yes” is mended. Without such a look nothing
 * is counted. That one came after the other is all that it says.
 */
export function followedBy({ plans, log, checks, setup }: FollowedFile): Followed[] {
  const followed = new Map<string, Followed>()
  const newestFirst = [...checks].sort((a, b) => (a.takenOn < b.takenOn ? 1 : -1))
  for (const { startsOn, cards } of [...plans].sort((a, b) => (a.startsOn < b.startsOn ? -1 : 1)))
    for (const { exerciseId, reason } of cards) {
      const given = reasonId(reason)
      const id = `${exerciseId} ${given?.key}`
      if (!given || followed.has(id)) continue
      const own = log.filter((one) => one.exerciseId === exerciseId && one.on >= startsOn)
      const tried = [...new Set(own.map(({ on }) => on))].sort()[LEAST_DAYS - 1]
      const isMended = tried === undefined ? undefined : mendedSince(reason, tried)
      if (isMended !== undefined) followed.set(id, { exerciseId, reason: given.reason, isMended })
    }
  return [...followed.values()]

  /** Undefined where nobody has looked since that day. */
  function mendedSince(reason: PlanReason, day: string): boolean | undefined {
    if (reason.code === 'setup') {
      const later = setup.filter(({ itemId, on }) => itemId === reason.itemId && on > day)
      const newest = later.reduce<SetupLook | undefined>((a, b) => (a && a.on >= b.on ? a : b), undefined)
      return newest && newest.answer === 'yes'
    }
    if (reason.code !== 'finding') return undefined
    const key = findingKey(reason.finding)
    const source = checks.find((check) => check.takenOn === reason.on && tells(check.verdict, key))
    const later = newestFirst.find(
      (check) => check.exerciseId === source?.exerciseId && check.takenOn > day && isJudged(check.verdict),
    )
    return later && !tells(later.verdict, key)
  }
}

function reasonId(reason: PlanReason): { readonly key: string; readonly reason: string } | undefined {
  if (reason.code === 'finding') return { key: findingKey(reason.finding), reason: reason.finding.code }
  if (reason.code !== 'setup') return undefined
  const id = `${SETUP_REASON}${reason.itemId}`
  return { key: id, reason: id }
}

/** Before the id of an item: one of them is called as a finding is. */
export const SETUP_REASON = 'setup '

/** The same over many students, what was tried most first. */
export function mendCounts(all: readonly Followed[]): MendCount[] {
  const counts = new Map<string, MendCount>()
  for (const { exerciseId, reason, isMended } of all) {
    const id = `${exerciseId} ${reason}`
    const { tried, mended } = counts.get(id) ?? { tried: 0, mended: 0 }
    counts.set(id, { exerciseId, reason, tried: tried + 1, mended: mended + Number(isMended) })
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
