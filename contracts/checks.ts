import { z } from 'zod'
import { LANDING_SOURCES, MAX_METER_CENTS, MAX_TRACK_BYTES, type Finding as CoreFinding } from '#core'
import { FingerNumber, Id, Instant, NOTE_LENGTH, NoteText, SystemId } from './common'
import { Stringing } from './instruments'

const plusMinusMm = z.number()

export const Finding = z
  .discriminatedUnion('code', [
    z.object({
      code: z.literal('whole_hand'),
      offsetMm: z.number(),
      plusMinusMm,
      openStringHeard: z.boolean(),
    }),
    z.object({
      code: z.literal('frame'),
      errorMm: z.number(),
      plusMinusMm,
      where: z.enum(['across', 'first', 'last']),
      fromFinger: FingerNumber,
      toFinger: FingerNumber,
      expectedMm: z.number(),
      cents: z.number(),
      shownBy: FingerNumber,
    }),
    z.object({
      code: z.literal('finger'),
      finger: FingerNumber,
      offsetMm: z.number(),
      plusMinusMm,
      cents: z.number(),
    }),
  ])
  .meta({ id: 'Finding' }) satisfies z.ZodType<CoreFinding>

/** A verdict as it was kept: enough to word it again, without the evidence, which is the landings. */
export const KeptVerdict = z
  .discriminatedUnion('outcome', [
    z.object({
      outcome: z.literal('not_enough_notes'),
      fingersHeard: z.array(FingerNumber),
      fingersNeeded: z.number(),
    }),
    z.object({ outcome: z.literal('string_out_of_tune'), cents: z.number() }),
    z.object({
      outcome: z.literal('in_tune'),
      worst: z.object({ finger: FingerNumber, meanCents: z.number() }),
    }),
    z.object({
      outcome: z.enum(['explained', 'several']),
      findings: z.array(Finding),
      alternatives: z.array(Finding),
    }),
  ])
  .meta({ id: 'Verdict' })

/** 0 is the open string. */
const PlayedFinger = z.union([z.literal(0), FingerNumber])
const StringIndex = z.int().min(0).meta({ description: 'Counted from the lowest string' })

/** What was to be played: a hand shape of the family on one open string. */
const shapeOnString = {
  kind: z.literal('shape'),
  /** The open string. */
  string: NoteText,
  shapeId: z.string().max(40),
}
export const ExerciseName = z.object(shapeOnString).meta({ id: 'ExerciseName' })

export const ExpectedNote = z
  .object({ stringIndex: StringIndex, finger: PlayedFinger, note: NoteText })
  .meta({ id: 'ExpectedNote' })

export const Exercise = z
  .object({ ...shapeOnString, notes: z.array(ExpectedNote) })
  .meta({ id: 'Exercise', description: 'A line of expected notes' })

/** A finger that is further off than this is on another note. */
const MAX_HEARD_CENTS = 150
const HeardCents = z.number().min(-MAX_HEARD_CENTS).max(MAX_HEARD_CENTS)
/** One standard deviation. */
const HeardSigma = z.number().min(0).max(200)
const Milliseconds = z
  .number()
  .min(0)
  .max(24 * 3_600_000)

const HeardBeside = z
  .object({
    /** Where the note was left, off the expected note. */
    settledCents: HeardCents,
    settledSigmaCents: HeardSigma,
    lastsMs: Milliseconds,
    /** Part of the sound that belonged to the pitch. */
    confidence: z.number().min(0).max(1),
  })
  .meta({ id: 'HeardBeside' })

export const Landing = ExpectedNote.extend({
  /** Where the string was stopped, mm from the nut. */
  placeMm: z.number(),
  /** Off the expected note; sharp is positive. */
  cents: z.number(),
  /** One standard deviation of `cents`. */
  sigmaCents: z.number(),
  /** From the beginning of the take; null where nobody held a clock. */
  atMs: z.number().nullable(),
  source: z.enum(LANDING_SOURCES),
  /** What an ear heard beside; null of what was read from a meter. */
  heard: HeardBeside.nullable(),
}).meta({ id: 'Landing' })

export const MeterReading = z
  .object({
    /** Which note of the exercise. */
    finger: PlayedFinger,
    /** What an equal-tempered meter showed against the expected note. */
    shownCents: z
      .number({ error: 'Type what the meter showed, in cents.' })
      .min(-MAX_METER_CENTS, {
        error: `A whole semitone flat is another note: type −${MAX_METER_CENTS} to ${MAX_METER_CENTS}.`,
      })
      .max(MAX_METER_CENTS, {
        error: `A whole semitone sharp is another note: type −${MAX_METER_CENTS} to ${MAX_METER_CENTS}.`,
      }),
    atMs: z.number().min(0).nullable().default(null),
  })
  .meta({ id: 'MeterReading' })

export const HeardReading = HeardBeside.extend({
  /** Which note of the exercise. */
  finger: PlayedFinger,
  /** Where the finger landed, off the expected note, the string's own tuning taken out. */
  landingCents: HeardCents,
  landingSigmaCents: HeardSigma,
  /** From the beginning of the take. */
  atMs: Milliseconds,
}).meta({ id: 'HeardReading' })

/** A take that an ear has heard: its notes, and the track of its pitch. The sound itself is not sent. */
export const HeardTake = z
  .object({
    source: z.enum(LANDING_SOURCES).exclude(['meter']),
    notes: z
      .array(HeardReading)
      .min(1, { error: 'Nothing of the exercise was heard: play it once more.' })
      .max(4000, { error: 'Keep one take to 4,000 notes.' }),
    /** Base64 of a coded track. */
    track: z
      .base64()
      .max(Math.ceil(MAX_TRACK_BYTES / 3) * 4, { error: 'Keep one take to half an hour.' })
      .nullable(),
  })
  .meta({ id: 'HeardTake' })

export const TakeTrack = z
  .object({
    /** Base64 of a coded track. */
    track: z.base64(),
  })
  .meta({ id: 'TakeTrack' })

export const CheckDraft = z
  .object({
    instrumentId: Id,
    takenAt: Instant,
    exercise: ExerciseName,
    system: SystemId,
    readings: z.array(MeterReading).max(400, { error: 'Keep one check to 400 notes.' }).default([]),
    /** What was heard, where an ear has listened. */
    heard: HeardTake.nullable().default(null),
    /** Played without seeing the tapes. */
    tapesCovered: z.boolean().default(false),
    note: z.string().max(NOTE_LENGTH).default(''),
  })
  .refine(({ readings, heard }) => readings.length > 0 || heard !== null, {
    error: 'Read at least one note.',
    path: ['readings'],
  })
  .meta({
    id: 'CheckDraft',
    examples: [
      {
        instrumentId: '00000000-0000-7000-8000-000000000000',
        takenAt: '2026-11-28T09:41:00Z',
        exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
        system: 'fifths',
        readings: [
          { finger: 1, shownCents: 3 },
          { finger: 2, shownCents: 5 },
          { finger: 3, shownCents: -4 },
          { finger: 4, shownCents: -22 },
        ],
      },
    ],
  })

export const CheckSummary = z
  .object({
    id: Id,
    takenAt: Instant,
    /** Null for a check of an earlier version that could not be moved over. */
    exercise: ExerciseName.nullable(),
    verdict: KeptVerdict,
  })
  .meta({ id: 'CheckSummary' })

export const Check = CheckSummary.extend({
  studentId: Id,
  instrumentId: Id,
  exercise: Exercise.nullable(),
  /** The strings as they were that day; judged by these, whatever becomes of the instrument. */
  stringing: Stringing.nullable(),
  toleranceCents: z.number(),
  tapesCovered: z.boolean(),
  landings: z.array(Landing),
  /** A take was heard, and the track of its pitch is kept. */
  hasTrack: z.boolean(),
  note: z.string(),
  by: z.string(),
  removedAt: Instant.nullable(),
  /** Why only the verdict is left to read; null where all is there. */
  unreadable: z.string().nullable(),
}).meta({ id: 'Check' })
