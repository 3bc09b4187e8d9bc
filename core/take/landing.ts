import { placeOnString, type Stringing } from '../instrument'
import { targetOf, type ExpectedNote } from './exercise'

/** What told where a finger landed: a meter's number, a ruler, an eye, a microphone, a recording, or a simulated player. */
export const LANDING_SOURCES = ['meter', 'ruler', 'eye', 'microphone', 'recording', 'simulated'] as const
export type LandingSource = (typeof LANDING_SOURCES)[number]

/** A finger is heard up to here off its note: low 2 for high 2, and as it may aim badly beside. Beyond, it plays another note. */
export const READ_TO_CENTS = 150

/** Where one finger landed on one string, against the note that was expected. */
export interface Landing extends ExpectedNote {
  /** Where the string was stopped, mm from the nut; 0 for an open string. */
  readonly placeMm: number
  /** Off the expected note; sharp is positive. */
  readonly cents: number
  /** One standard deviation of `cents`. */
  readonly sigmaCents: number
  /** From the beginning of the take, ms; null where nobody held a clock. */
  readonly atMs: number | null
  readonly source: LandingSource
  /** What an ear heard beside where the finger landed; null of what was read from a meter. */
  readonly heard: HeardBeside | null
}

/** The rest of a note that was heard. */
export interface HeardBeside {
  /** Where the note was left, off the expected note, and one standard deviation of it. */
  readonly settledCents: number
  readonly settledSigmaCents: number
  readonly lastsMs: number
  /** Part of the sound that belonged to the pitch, 0 … 1. */
  readonly confidence: number
  /** Standard deviation of the pitch while it was held, a vibrato taken out; unknown of earlier versions, as is the next. */
  readonly wobbleCents?: number | undefined
  /** How much of its sound lay in high partials, dB, against other notes of the same take. */
  readonly brightnessDb?: number | undefined
  /** From lowest to highest of a vibrato, and its highest off the expected note; nothing of a note without one. */
  readonly vibratoWidthCents?: number | undefined
  readonly vibratoTopCents?: number | undefined
}

/** How a landing was told, beside its cents. */
export type LandingFacts = Pick<Landing, 'sigmaCents' | 'atMs' | 'source'> & Partial<Pick<Landing, 'heard'>>

/** A landing that is known by its pitch: `cents` off the expected note, of which the stringing makes a place. */
export function landingAtCents(
  stringing: Stringing,
  { stringIndex, finger, note, positionId }: ExpectedNote,
  cents: number,
  { sigmaCents, atMs, source, heard = null }: LandingFacts,
): Landing {
  const expected: ExpectedNote = { stringIndex, finger, note, positionId }
  const target = targetOf(stringing, expected)
  const placeMm = finger === 0 ? 0 : placeOnString(stringing, stringIndex, target.cents + cents)
  return { ...expected, placeMm, cents, sigmaCents, atMs, source, heard }
}
