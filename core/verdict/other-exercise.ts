import { group, median } from 'd3-array'
import type { Finger } from '../instrument'
import type { Evidence } from './evidence'

/** A finger that stands a half step from its note, or all of them. */
export interface OtherPattern {
  /** Null of the whole hand: another position, or strings tuned a half step off. */
  readonly finger: Finger | null
  /** 1: a half step high. */
  readonly halfSteps: 1 | -1
}

/** So near to a half step off a finger plays another pattern; no hand is off by so much and right otherwise. */
const HALF_STEP = { from: 75, to: 125 } as const
/** The others stand within this, so the hand is where it should be. */
const OTHERS_CENTS = 45

/**
 * One finger plays another note, a pattern with its half step elsewhere; or the whole hand does, alike. Undefined where neither is
 * so.
 */
export function otherPattern({ notes }: Evidence): OtherPattern | undefined {
  const middles = [...group(notes, ({ target }) => target.finger)].map(([finger, own]) => ({
    finger,
    cents: median(own, ({ cents }) => cents)!,
  }))
  const away = middles.filter(
    ({ cents }) => Math.abs(cents) >= HALF_STEP.from && Math.abs(cents) <= HALF_STEP.to,
  )
  const [one] = away
  if (!one || middles.length < 3) return undefined
  const halfSteps = one.cents > 0 ? 1 : -1
  if (away.length === middles.length && away.every(({ cents }) => Math.sign(cents) === halfSteps))
    return { finger: null, halfSteps }
  if (away.length > 1) return undefined
  if (middles.some((other) => other !== one && Math.abs(other.cents) > OTHERS_CENTS)) return undefined
  return { finger: one.finger, halfSteps }
}
