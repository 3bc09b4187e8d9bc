import { z } from 'zod'
import type { Finding as CoreFinding } from '#core'
import { FingerNumber, Id, Instant, NOTE_LENGTH, NoteText, SystemId } from './common'

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

/** A verdict as it was kept: enough to word it again, without the evidence, which is the readings. */
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

/** A meter shows the nearest note; past this the finger is on another one. */
export const MAX_METER_CENTS = 99

export const Reading = z
  .object({
    /** 0 is the open string. */
    finger: z.union([z.literal(0), FingerNumber]),
    /** What an equal-tempered meter showed against the expected note. */
    shownCents: z
      .number({ error: 'Type what the meter showed, in cents.' })
      .min(-MAX_METER_CENTS, {
        error: `A whole semitone flat is another note: type −${MAX_METER_CENTS} to ${MAX_METER_CENTS}.`,
      })
      .max(MAX_METER_CENTS, {
        error: `A whole semitone sharp is another note: type −${MAX_METER_CENTS} to ${MAX_METER_CENTS}.`,
      }),
  })
  .meta({ id: 'Reading' })

export const CheckDraft = z
  .object({
    instrumentId: Id,
    takenAt: Instant,
    /** The open string. */
    string: NoteText,
    shapeId: z.string().max(40),
    system: SystemId,
    readings: z
      .array(Reading)
      .min(1, { error: 'Read at least one note.' })
      .max(400, { error: 'Keep one check to 400 notes.' }),
    note: z.string().max(NOTE_LENGTH).default(''),
  })
  .meta({
    id: 'CheckDraft',
    examples: [
      {
        instrumentId: '00000000-0000-7000-8000-000000000000',
        takenAt: '2026-11-28T09:41:00Z',
        string: 'A4',
        shapeId: 'first',
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
  .object({ id: Id, takenAt: Instant, string: NoteText, shapeId: z.string(), verdict: KeptVerdict })
  .meta({ id: 'CheckSummary' })

export const Check = CheckSummary.extend({
  studentId: Id,
  instrumentId: Id,
  system: SystemId,
  lengthMm: z.number(),
  toleranceCents: z.number(),
  readings: z.array(Reading),
  note: z.string(),
  by: z.string(),
  removedAt: Instant.nullable(),
}).meta({ id: 'Check' })
