import { least } from 'd3-array'
import { centsOnString, centsPerMmOnString, placeOnString, type Stringing } from '../instrument'
import { targetOf, type ExpectedNote, type Target } from './exercise'
import { landingAtCents, type Landing } from './landing'
import { landingFromMeter } from './meter'

/** Where a finger is seen against its tape, from the nut: short of it, on it, or beyond it. */
export const SIDES = ['behind', 'on', 'past'] as const
export type Side = (typeof SIDES)[number]

/** What somebody wrote down of one note: exactly one of what a meter showed, a ruler measured, or an eye saw. */
export interface Reading {
  /** What an equal-tempered meter showed, cents. */
  readonly shownCents?: number | undefined
  /** How far the finger stood from its place, mm, towards the bridge positive. */
  readonly offMm?: number | undefined
  readonly side?: Side | undefined
}

/** One standard deviation of where a fingertip’s middle is by a ruler beside the string, mm. Common practice, no source. */
export const RULER_SIGMA_MM = 1

/** An eye calls a finger on its tape within so many cents of it. Our own number: about 2 mm on a violin. */
const ON_WITHIN_CENTS = 12
/** How far fingers lie from their places before anybody looked: one standard deviation, cents. Of the simulated beginners. */
const USUALLY_OFF_CENTS = 25
/** A tape further from a place than this is another note’s. */
const TAPE_OF_NOTE_CENTS = 50

/**
 * What an eye’s word is worth: mean and standard deviation of a normal distribution about the tape, cut off where the word
 * begins and ends. Source: N. L. Johnson, S. Kotz and N. Balakrishnan, Continuous Univariate Distributions 1 (1994), § 10.1;
 * φ(0.48) = 0.3555 and 1 − Φ(0.48) = 0.3156 from tables.
 */
const BEYOND = (() => {
  const from = ON_WITHIN_CENTS / USUALLY_OFF_CENTS
  const hazard = 0.3555 / 0.3156
  return {
    cents: USUALLY_OFF_CENTS * hazard,
    sigmaCents: USUALLY_OFF_CENTS * Math.sqrt(1 + from * hazard - hazard ** 2),
  }
})()
const SEEN: Record<Side, { readonly cents: number; readonly sigmaCents: number }> = {
  behind: { ...BEYOND, cents: -BEYOND.cents },
  // Nearly even between its ends.
  on: { cents: 0, sigmaCents: ON_WITHIN_CENTS / Math.sqrt(3) },
  past: BEYOND,
}

/** The word that was nearest to so many cents from the tape: what {@link landingOfReading} made of it, read back. */
export function sideSeen(centsFromTape: number): Side {
  return least(SIDES, (side) => Math.abs(SEEN[side].cents - centsFromTape))!
}

/**
 * A landing from whatever was written down, each with its own precision. An eye sees the tape and not the place: where the tape
 * lies somewhere else, so did the finger.
 *
 * @param tapesMm where tapes lie, mm from the nut.
 * @throws RangeError for a ruler or an eye on an open string, and where nothing was written down.
 */
export function landingOfReading(
  stringing: Stringing,
  expected: ExpectedNote,
  { shownCents, offMm, side }: Reading,
  { atMs = null, tapesMm = [] }: { readonly atMs?: number | null; readonly tapesMm?: readonly number[] } = {},
): Landing {
  if (shownCents !== undefined) return landingFromMeter(stringing, expected, shownCents, atMs)
  if (expected.finger === 0) throw new RangeError('an open string has no place to be measured')
  const { stringIndex } = expected
  const target = targetOf(stringing, expected)
  if (offMm !== undefined)
    return landingAtCents(
      stringing,
      expected,
      centsOnString(stringing, stringIndex, target.placeMm + offMm) - target.cents,
      {
        sigmaCents: RULER_SIGMA_MM * centsPerMmOnString(stringing, stringIndex, target.placeMm),
        atMs,
        source: 'ruler',
      },
    )
  if (side === undefined) throw new RangeError('nothing was read')
  const seen = SEEN[side]
  const tape = tapeOf(stringing, target, tapesMm)
  return landingAtCents(stringing, expected, (tape?.offCents ?? 0) + seen.cents, {
    sigmaCents: seen.sigmaCents,
    atMs,
    source: 'eye',
  })
}

/** A tape, and how far it lies from the place that it is meant for. */
export interface TapeOfPlace {
  readonly placeMm: number
  readonly offCents: number
}

/** The tape that a player aims this note at; undefined where none lies within a quarter tone. */
export function tapeOf(
  stringing: Stringing,
  { stringIndex, cents, placeMm }: Target,
  tapesMm: readonly number[],
): TapeOfPlace | undefined {
  const nearest = least(tapesMm, (mm) => Math.abs(mm - placeMm))
  if (nearest === undefined) return undefined
  const offCents = centsOnString(stringing, stringIndex, nearest) - cents
  return Math.abs(offCents) <= TAPE_OF_NOTE_CENTS ? { placeMm: nearest, offCents } : undefined
}

/** How far a finger may be off by a ruler before it is on another note: a half step at the nut, mm. */
export function mostOffMm(stringing: Stringing, stringIndex: number): number {
  return placeOnString(stringing, stringIndex, 100)
}
