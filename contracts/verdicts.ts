import { z } from 'zod'
import type { Finding as CoreFinding } from '#core'
import { FingerNumber, Instant, NOTE_LENGTH } from './common'

const plusMinusMm = z.number()
const FingerPairs = z.array(z.tuple([FingerNumber, FingerNumber]).readonly()).readonly()
const misplacedTape = { finger: FingerNumber, tapeMm: z.number(), placeMm: z.number(), cents: z.number() }

export const Finding = z
  .discriminatedUnion('code', [
    z.object({
      code: z.literal('whole_hand'),
      offsetMm: z.number(),
      plusMinusMm,
      openStringHeard: z.boolean(),
      positionId: z.string().optional(),
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
    z.object({
      code: z.literal('steps'),
      errorMm: z.number(),
      plusMinusMm,
      halves: FingerPairs.optional(),
      wholes: FingerPairs.optional(),
    }),
    z.object({ code: z.enum(['locked_thumb', 'pinched', 'dragged']), offsetMm: z.number(), plusMinusMm }),
    z.object({
      code: z.literal('elbow'),
      shortMm: z.number(),
      plusMinusMm,
      finger: FingerNumber,
      cents: z.number(),
    }),
    z.object({ code: z.literal('creep'), offsetMm: z.number(), plusMinusMm, cents: z.number() }),
    z.object({
      code: z.literal('string'),
      string: z.string(),
      cents: z.number(),
      plusMinusCents: z.number(),
    }),
    z.object({ code: z.literal('ear_repairs'), landedCents: z.number(), settledCents: z.number() }),
    z.object({ code: z.literal('wobble'), finger: FingerNumber, cents: z.number() }),
    z.object({ code: z.literal('dull'), finger: FingerNumber, lessDb: z.number() }),
    z.object({ code: z.literal('vibrato'), aboveCents: z.number(), widthCents: z.number() }),
    z.object({
      code: z.literal('without_tapes'),
      finger: FingerNumber,
      cents: z.number(),
      seenCents: z.number(),
    }),
    z.object({
      code: z.literal('place'),
      finger: FingerNumber,
      string: z.string(),
      note: z.string(),
      cents: z.number(),
      plusMinusCents: z.number(),
      count: z.int(),
    }),
    z.object({ code: z.literal('tape'), ...misplacedTape }),
    z.object({ code: z.literal('scatter'), cents: z.number(), leastCents: z.number() }),
  ])
  .meta({ id: 'Finding' }) satisfies z.ZodType<CoreFinding>

/** What stands beside any verdict; all absent of earlier versions. */
const beside = {
  /** What is heard beside where the fingers land. */
  beside: z.array(Finding).optional(),
  /** Of one note, with its interval of nineteen in twenty. */
  scatter: z.object({ cents: z.number(), lowCents: z.number(), highCents: z.number() }).optional(),
  /** Readings that were left out, since they lie far from where their finger and string otherwise land. */
  strays: z.array(z.object({ finger: FingerNumber, string: z.string(), cents: z.number() })).optional(),
  /** Earlier takes of the same hand that had a say: how many, how old the newest, and their share of it. */
  earlier: z.object({ count: z.int(), daysAgo: z.number(), share: z.number() }).optional(),
}

/** A verdict as it was kept: enough to word it again, without the evidence, which is the landings. */
export const KeptVerdict = z
  .discriminatedUnion('outcome', [
    z.object({
      outcome: z.literal('not_enough_notes'),
      fingersHeard: z.array(FingerNumber),
      fingersNeeded: z.number(),
      /** About so many notes more would tell; null where fingers are missing, or it would take another lesson. Absent of earlier versions, as is the next. */
      more: z.number().nullable().optional(),
      moreTo: z.number().optional(),
      maybe: z.array(Finding).optional(),
      leans: z.boolean().optional(),
      /** Fingers of the exercise of which nothing was heard, while the others are in tune. */
      unheard: z.array(FingerNumber).optional(),
      ...beside,
    }),
    z.object({
      outcome: z.literal('string_out_of_tune'),
      cents: z.number(),
      /** The open string’s name; absent of earlier versions. */
      string: z.string().optional(),
      ...beside,
    }),
    z.object({
      /** A tape lies where no note is, and its finger follows it. */
      outcome: z.literal('tape_misplaced'),
      ...misplacedTape,
      /** More of them, the furthest off first; absent of earlier versions. */
      others: z.array(z.object(misplacedTape)).optional(),
      ...beside,
    }),
    z.object({
      /** One finger played a half step away from what was asked, and others with it; null: all of them did. */
      outcome: z.literal('other_exercise'),
      finger: FingerNumber.nullable(),
      with: z.array(FingerNumber).optional(),
      /** On this string alone; missing: on all, as of earlier versions. */
      string: z.string().optional(),
      halfSteps: z.union([z.literal(1), z.literal(-1)]),
      ...beside,
    }),
    z.object({
      /** 4 against the next open string, or against the octave of 1. */
      outcome: z.literal('matched'),
      of: z.enum(['fourth', 'octave']),
      cents: z.number(),
      plusMinusCents: z.number(),
      /** Null where the notes do not carry it. */
      isOff: z.boolean().nullable(),
      ...beside,
    }),
    z.object({
      outcome: z.literal('in_tune'),
      worst: z.object({ finger: FingerNumber, meanCents: z.number() }),
      ...beside,
    }),
    z.object({
      outcome: z.enum(['explained', 'several']),
      findings: z.array(Finding),
      alternatives: z.array(Finding),
      ...beside,
    }),
  ])
  .meta({ id: 'Verdict' })

/** Why a teacher does not follow a verdict. */
export const OVERRULES = [
  'instrument',
  'tape',
  'other_notes',
  'seen_otherwise',
  'too_strict',
  'other',
] as const

/** What is worked on until the next lesson, in a line. */
const WORK_LENGTH = 160

export const DecisionDraft = z
  .object({
    says: z.enum(['accepted', 'overruled']),
    /** Of a verdict that is overruled. */
    reason: z
      .enum(OVERRULES, { error: `Say why: ${OVERRULES.join(', ')}.` })
      .nullable()
      .default(null),
    /** The sentence as the teacher would say it; null where it stands as it is. */
    sentence: z
      .string()
      .trim()
      .min(1, { error: 'Write a sentence, or leave it as it is.' })
      .max(NOTE_LENGTH, { error: `Keep the sentence to ${NOTE_LENGTH} characters.` })
      .nullable()
      .default(null),
    /** The one thing to work on. */
    workOn: z
      .string()
      .trim()
      .min(1, { error: 'Say what is worked on, or nothing.' })
      .max(WORK_LENGTH, { error: `Keep it to one thing: ${WORK_LENGTH} characters.` })
      .nullable()
      .default(null),
    /** What was worked on is mended, or is let go. */
    isMended: z.boolean().default(false),
  })
  .refine(({ says, reason }) => says === 'accepted' || reason !== null, {
    error: 'Say why the verdict is overruled.',
    path: ['reason'],
  })
  .meta({
    id: 'DecisionDraft',
    examples: [{ says: 'overruled', reason: 'seen_otherwise', sentence: 'The elbow was in the way.' }],
  })

export const WorkChange = z
  .object({ isMended: z.boolean() })
  .meta({ id: 'WorkChange', examples: [{ isMended: true }] })

export const Decision = z
  .object({
    says: z.enum(['accepted', 'overruled']),
    reason: z.enum(OVERRULES).nullable(),
    sentence: z.string().nullable(),
    workOn: z.string().nullable(),
    /** Missing where it was said by an earlier version. */
    isMended: z.boolean().optional(),
    by: z.string(),
    at: Instant,
  })
  .meta({ id: 'Decision', description: 'What a teacher said to a verdict' })

/** How often each kind of finding was told within a tolerance, and what teachers said to it. */
export const VerdictCounts = z
  .array(
    z.object({
      toleranceCents: z.int(),
      /** Code of the first finding, or the outcome where there is none. */
      told: z.string(),
      count: z.int(),
      accepted: z.int(),
      overruled: z.int(),
      /** Overruled since the tolerance was too strict. */
      tooStrict: z.int(),
    }),
  )
  .meta({ id: 'VerdictCounts' })
