import { groups } from 'd3-array'
import { dayNumber, dayOf } from '../calendar'
import type { Finger } from '../instrument'
import { fitLine, slopeInterval, whereLineReaches } from '../stats'
import type { GateCheck } from './gate-check'

/** Days between which something may be reached, ISO dates: four times in five, if it goes on as it did. */
export interface Reach {
  readonly from: string
  readonly to: string
}

/** Three looks tell their scatter by one number; with four an interval begins to mean something. Chosen, as for growth. */
const FEWEST_LOOKS = 4
const CONFIDENCE = 0.8
/** A line through some weeks says nothing of the next year. Chosen. */
const FURTHEST_DAYS = 182

/**
 * When the worst of some fingers may come within its tolerance: the day on which the line through the looks so far does, with Fieller’s
 * interval (see `whereLineReaches`). One look a day: the finger that was furthest off on average. Undefined, which is most of the time,
 * where there are too few looks, where it is not sure that the hand comes nearer, where the interval ends more than half a year on, and where the line
 * is within already.
 *
 * @param checks in any order; each with all of these fingers
 * @param today ISO date
 */
export function whenWithin(
  checks: readonly GateCheck[],
  fingers: readonly Finger[],
  today: string,
): Reach | undefined {
  const newest = checks.reduce<GateCheck | undefined>(
    (a, b) => (a && a.takenOn >= b.takenOn ? a : b),
    undefined,
  )
  const looks = groups(checks, ({ takenOn }) => takenOn).map(([day, own]) => ({
    x: dayNumber(day),
    y: Math.max(...own.map((check) => worstOf(check, fingers))),
  }))
  const line = looks.length < FEWEST_LOOKS ? undefined : fitLine(looks)
  if (!newest || !line || slopeInterval(line, CONFIDENCE)[1] >= 0) return undefined
  const reached = whereLineReaches(line, newest.toleranceCents, CONFIDENCE)
  const now = dayNumber(today)
  if (!reached || reached.x <= now || reached.interval[1] > now + FURTHEST_DAYS) return undefined
  const [low, high] = reached.interval
  return { from: dayOf(Math.max(now, Math.floor(low))), to: dayOf(Math.ceil(high)) }
}

function worstOf({ fingers: heard }: GateCheck, fingers: readonly Finger[]): number {
  return Math.max(
    ...heard.filter(({ finger }) => fingers.includes(finger)).map(({ meanCents }) => Math.abs(meanCents)),
  )
}
