import { group, median } from 'd3-array'
import type { Finger } from '../instrument'
import type { Evidence } from './evidence'

/** A finger that stands a half step from its note. */
export interface OtherPattern {
  readonly finger: Finger
  /** 1: a half step high. */
  readonly halfSteps: 1 | -1
}

/** So near to a half step off a finger plays another pattern; no hand is off by so much and right otherwise. */
const HALF_STEP = { from: 75, to: 125 } as const
/** The others stand within this, so the hand is where it should be. */
const OTHERS_CENTS = 45

/** One finger, not all of them, plays another note: a pattern with its half step elsewhere. Undefined where none does. */
export function otherPattern({ notes }: Evidence): OtherPattern | undefined {
  const middles = [...group(notes, ({ target }) => target.finger)].map(([finger, own]) => ({
    finger,
    cents: median(own, ({ cents }) => cents)!,
  }))
  const away = middles.filter(
    ({ cents }) => Math.abs(cents) >= HALF_STEP.from && Math.abs(cents) <= HALF_STEP.to,
  )
  const [one] = away
  if (!one || away.length > 1 || middles.length < 3) return undefined
  if (middles.some((other) => other !== one && Math.abs(other.cents) > OTHERS_CENTS)) return undefined
  return { finger: one.finger, halfSteps: one.cents > 0 ? 1 : -1 }
}
