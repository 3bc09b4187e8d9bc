import type { Stringing } from '../instrument'
import { targetOf, type ExpectedNote } from './exercise'
import { landingAtCents, type Landing } from './landing'

/** How well one bowed note read from a meter repeats, cents. An assumption until the notes themselves show their spread. */
export const METER_SIGMA_CENTS = 4
/** A meter shows the nearest note; past this the finger is on another one. */
export const MAX_METER_CENTS = 99

/**
 * A landing from what an equal-tempered meter showed against the expected note. A meter measures against equal temperament;
 * the hand is judged against its own tuning system, so what the meter should have shown is taken off first: a ringing E on a
 * violin's D string shows +2.
 */
export function landingFromMeter(
  stringing: Stringing,
  expected: ExpectedNote,
  shownCents: number,
  atMs: number | null = null,
): Landing {
  const cents = shownCents - targetOf(stringing, expected).meterCents
  return landingAtCents(stringing, expected, cents, {
    sigmaCents: METER_SIGMA_CENTS,
    atMs,
    source: 'meter',
  })
}

/** What an equal-tempered meter shows of a landing; inverse of {@link landingFromMeter}. */
export function shownByMeter(stringing: Stringing, landing: Landing): number {
  return landing.cents + targetOf(stringing, landing).meterCents
}
