import { z } from 'zod'
import { LANDING_SOURCES, MAX_METER_CENTS, MAX_TRACK_BYTES, READ_TO_CENTS, SIDES } from '#core'
import { FingerNumber, Id, Instant, IsoDate, NOTE_LENGTH, NoteText, PlayedFinger, SystemId } from './common'
import { LONGEST_PAGE } from './limits'
import { pageQuery } from './lists'
import { RecordedStringing } from './instruments'
import { Decision, KeptVerdict } from './verdicts'

/** 0 is the open string. */
const StringIndex = z.int().min(0).meta({ description: 'Counted from the lowest string' })

const NameId = z.string().max(40)
const KeyId = NameId.meta({ description: 'A tonic and a mode', examples: ['D:major', 'Bb:natural_minor'] })

export const ExpectedNote = z
  .object({
    stringIndex: StringIndex,
    finger: PlayedFinger,
    note: NoteText,
    /** Where the hand stands; null of an open string, and above the last position. */
    positionId: NameId.nullable().default(null),
  })
  .meta({ id: 'ExpectedNote' })

/** A hand shape of the family on one open string. */
const Shape = z.object({
  kind: z.literal('shape'),
  /** The open string. */
  string: NoteText,
  shapeId: NameId,
})
/** The hand of a key on one open string in one position. */
const KeyHand = z.object({ kind: z.literal('hand'), keyId: KeyId, string: NoteText, positionId: NameId })
const Scale = z.object({
  kind: z.enum(['scale', 'arpeggio']),
  keyId: KeyId,
  octaves: z.union([z.literal(1), z.literal(2), z.literal(3)]),
  openStrings: z.enum(['prefer', 'avoid']),
})
const Drill = z.object({ ...KeyHand.shape, kind: z.literal('drill'), drillId: NameId })
const Match = z.object({
  kind: z.enum(['fourth', 'octave']),
  /** The lower of the two. */
  string: NoteText,
})
const Free = z.object({ kind: z.literal('free') })

export const ExerciseName = z
  .discriminatedUnion('kind', [Shape, KeyHand, Scale, Drill, Match, Free])
  .meta({ id: 'ExerciseName', description: 'What was to be played' })

const line = {
  notes: z
    .array(ExpectedNote)
    .min(1, { error: 'Say which notes the exercise has.' })
    .max(1000, { error: 'Keep an exercise to 1,000 notes.' }),
}
/** The notes of a hand shape follow from its name; of everything else they are sent. */
const ExerciseDraft = z
  .discriminatedUnion('kind', [
    Shape,
    KeyHand.extend(line),
    Scale.extend(line),
    Drill.extend(line),
    Match.extend(line),
    Free.extend(line),
  ])
  .meta({ id: 'ExerciseDraft' })

const kept = { notes: z.array(ExpectedNote) }
export const RecordedExercise = z
  .discriminatedUnion('kind', [
    Shape.extend(kept),
    KeyHand.extend(kept),
    Scale.extend(kept),
    Drill.extend(kept),
    Match.extend(kept),
    Free.extend(kept),
  ])
  .meta({ id: 'RecordedExercise', description: 'A line of expected notes' })

/** Which note of the exercise, from 0; null where its finger has one note only. */
const NoteIndex = z.int().min(0).max(999).nullable().default(null)

const LandingCents = z.number().min(-READ_TO_CENTS).max(READ_TO_CENTS)
/** Where the ear leaves a finger that was read may be further off: twice as far it is another note’s. */
const SettledCents = z
  .number()
  .min(-2 * READ_TO_CENTS)
  .max(2 * READ_TO_CENTS)
/** One standard deviation. */
const HeardSigma = z.number().min(0).max(200)
const Milliseconds = z
  .number()
  .min(0)
  .max(24 * 3_600_000)

const HeardBeside = z
  .object({
    /** Where the note was left, off the expected note. */
    settledCents: SettledCents,
    settledSigmaCents: HeardSigma,
    lastsMs: Milliseconds,
    /** Part of the sound that belonged to the pitch. */
    confidence: z.number().min(0).max(1),
    /** Standard deviation of the pitch while it was held, a vibrato taken out. */
    wobbleCents: z.number().min(0).max(600).optional(),
    /** How much of its sound lay in high partials, dB, against other notes of the same take. */
    brightnessDb: z.number().min(-200).max(200).optional(),
    /** From lowest to highest of a vibrato, and its highest off the expected note. */
    vibratoWidthCents: z.number().min(0).max(600).optional(),
    vibratoTopCents: z.number().min(-600).max(600).optional(),
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

/** A finger further off than this by a ruler is on another note, on any instrument. */
const MAX_RULER_MM = 60
const ANOTHER_NOTE = `A whole semitone off is another note: type −${MAX_METER_CENTS} to ${MAX_METER_CENTS}.`

export const Reading = z
  .object({
    /** Of the note of the exercise. */
    finger: PlayedFinger,
    index: NoteIndex,
    /** What an equal-tempered meter showed against the expected note. */
    shownCents: z
      .number({ error: 'Type what the meter showed, in cents.' })
      .min(-MAX_METER_CENTS, { error: ANOTHER_NOTE })
      .max(MAX_METER_CENTS, { error: ANOTHER_NOTE })
      .optional(),
    /** From its place towards the bridge, by a ruler. */
    offMm: z
      .number({ error: 'Type how far off the finger stood, in mm.' })
      .min(-MAX_RULER_MM, { error: `Further off than ${MAX_RULER_MM} mm is another note.` })
      .max(MAX_RULER_MM, { error: `Further off than ${MAX_RULER_MM} mm is another note.` })
      .optional(),
    /** Where it stood against its tape, by eye. */
    side: z.enum(SIDES, { error: 'Say behind, on or past.' }).optional(),
    atMs: z.number().min(0).nullable().default(null),
  })
  .refine((r) => [r.shownCents, r.offMm, r.side].filter((told) => told !== undefined).length === 1, {
    error: 'Type what the meter showed, in cents; or mm off by a ruler; or where an eye saw it.',
    path: ['shownCents'],
  })
  .refine((r) => r.finger !== 0 || r.shownCents !== undefined, {
    error: 'An open string has no place: type what the meter showed of it.',
    path: ['finger'],
  })
  .meta({ id: 'Reading', description: 'One of cents by a meter, mm by a ruler, or where an eye saw it' })

export const HeardReading = HeardBeside.extend({
  /** Of the note of the exercise. */
  finger: PlayedFinger,
  index: NoteIndex,
  /** Where the finger landed, off the expected note, the string's own tuning taken out. */
  landingCents: LandingCents,
  landingSigmaCents: HeardSigma,
  /** From the beginning of the take. */
  atMs: Milliseconds,
}).meta({ id: 'HeardReading' })

/** A take that an ear has heard: its notes, and the track of its pitch. The sound itself is not sent. */
export const HeardTake = z
  .object({
    source: z.enum(LANDING_SOURCES).exclude(['meter', 'ruler', 'eye']),
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
    exercise: ExerciseDraft,
    system: SystemId,
    readings: z.array(Reading).max(400, { error: 'Keep one check to 400 notes.' }).default([]),
    /** What was heard, where an ear has listened. */
    heard: HeardTake.nullable().default(null),
    /** Played without seeing the tapes. */
    tapesCovered: z.boolean().default(false),
    /** Earlier takes of the same hand have a say in the verdict. */
    withEarlier: z.boolean().default(true),
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
    /** What a teacher said to it; null as long as nobody has. */
    decision: Decision.nullable(),
  })
  .meta({ id: 'CheckSummary' })

export const Check = CheckSummary.extend({
  studentId: Id,
  instrumentId: Id,
  exercise: RecordedExercise.nullable(),
  /** The strings as they were that day; judged by these, whatever becomes of the instrument. */
  stringing: RecordedStringing.nullable(),
  toleranceCents: z.number(),
  tapesCovered: z.boolean(),
  /** Where tapes lay, mm from the nut. */
  tapesMm: z.array(z.number()),
  landings: z.array(Landing),
  /** A take was heard, and the track of its pitch is kept. */
  hasTrack: z.boolean(),
  note: z.string(),
  by: z.string(),
  removedAt: Instant.nullable(),
  /** Judged once more since its instrument was measured again; null where it was not. */
  rejudged: z
    .object({ measuredOn: IsoDate, lengthsMm: z.array(z.number()), verdict: KeptVerdict })
    .nullable(),
  /** What it makes likely of the hand by itself, fault by fault, for later checks; null where it says nothing of it. */
  likely: z.record(z.string(), z.number()).nullable(),
  /** Why only the verdict is left to read; null where all is there. */
  unreadable: z.string().nullable(),
}).meta({ id: 'Check' })

export const ChecksQuery = z.object(pageQuery(LONGEST_PAGE))

const maybe = z.number().nullable()

/** A check in the numbers that a history draws. */
export const PastCheck = CheckSummary.omit({ verdict: true })
  .extend({
    instrumentId: Id,
    /** Mean of the strings it was judged by. */
    lengthMm: maybe,
    toleranceCents: z.number(),
    tapesCovered: z.boolean(),
    isRejudged: z.boolean(),
    /** Null of one that can no longer be read, and of one without stopped notes. */
    summary: z
      .object({
        count: z.int(),
        biasCents: z.number(),
        scatterCents: maybe,
        frameMm: maybe,
        driftCents: maybe,
        fingers: z.array(z.object({ finger: FingerNumber, cents: z.number(), count: z.int() })),
      })
      .nullable(),
  })
  .meta({ id: 'PastCheck' })

export const History = z
  .object({
    /** Oldest first. */
    checks: z.array(PastCheck),
    /** What the student held, and when; the last may be without an end. */
    loans: z.array(
      z.object({ instrumentId: Id, label: z.string(), fromDate: IsoDate, toDate: IsoDate.nullable() }),
    ),
    /** When tapes were laid and taken off on those instruments. */
    tapes: z.array(z.object({ instrumentId: Id, markId: z.string(), on: IsoDate, kind: z.string() })),
  })
  .meta({ id: 'History', description: 'Everything that was checked, with instruments and tapes beside it' })
