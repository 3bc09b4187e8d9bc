import { greatest, least } from 'd3-array'
import { daysBetween } from '../calendar'
import { CHECK_HAND_AFTER_DAYS } from './due'

/** A check of earlier days, as far as it says what to play next. */
export interface PlayedBefore {
  /** The same for the same exercise. */
  readonly exerciseId: string
  /** ISO date. */
  readonly takenOn: string
  /** Something was found in the hand. */
  readonly isOff: boolean
}

export interface Proposal {
  readonly exerciseId: string
  /** The day of the check that speaks for it. */
  readonly takenOn: string
  /** It was off when it was played last, or nobody has heard it for so long. */
  readonly reason: 'last_off' | 'due'
}

/**
 * What to play next: of the exercises that were off when they were last played the newest, else the one that has waited
 * longest, once it is due; undefined where nothing asks for anything. Common practice, no source.
 */
export function proposedExercise(
  today: string,
  checks: readonly PlayedBefore[],
  checkHandDays: number = CHECK_HAND_AFTER_DAYS,
): Proposal | undefined {
  const latest = new Map<string, PlayedBefore>()
  for (const check of checks) {
    const known = latest.get(check.exerciseId)
    if (!known || known.takenOn < check.takenOn) latest.set(check.exerciseId, check)
  }
  const all = [...latest.values()]
  const off = greatest(
    all.filter((check) => check.isOff),
    byDay,
  )
  if (off) return { exerciseId: off.exerciseId, takenOn: off.takenOn, reason: 'last_off' }
  const oldest = least(all, byDay)
  if (!oldest || daysBetween(oldest.takenOn, today) <= checkHandDays) return undefined
  return { exerciseId: oldest.exerciseId, takenOn: oldest.takenOn, reason: 'due' }
}

function byDay(a: PlayedBefore, b: PlayedBefore): number {
  return a.takenOn < b.takenOn ? -1 : a.takenOn > b.takenOn ? 1 : 0
}
