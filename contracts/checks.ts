import { z } from 'zod'
import { LANDING_SOURCES, MAX_METER_CENTS, type Finding as CoreFinding } from '#core'
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

export const CheckDraft = z
  .object({
    instrumentId: Id,
    takenAt: Instant,
    exercise: ExerciseName,
    system: SystemId,
    readings: z
      .array(MeterReading)
      .min(1, { error: 'Read at least one note.' })
      .max(400, { error: 'Keep one check to 400 notes.' }),
    /** Played without seeing the tapes. */
    tapesCovered: z.boolean().default(false),
    note: z.string().max(NOTE_LENGTH).default(''),
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
  note: z.string(),
  by: z.string(),
  removedAt: Instant.nullable(),
  /** Why only the verdict is left to read; null where all is there. */
  unreadable: z.string().nullable(),
}).meta({ id: 'Check' })
