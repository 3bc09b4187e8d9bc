import { z } from 'zod'
import {
  SCHOOL_QUESTIONS,
  USUAL_ARRANGEMENT,
  USUAL_INTERVALS,
  USUAL_TAPE_INTERVALS,
  isTimeZone,
  type SchoolQuestion,
  type SomeSchools,
} from '#core'
import { LOUDEST, QUIET_LOUDNESS } from './limits'
import { Family, line, SystemId, Version } from './common'
import { OwnExercises } from './exercises'

/** How far off still counts as in tune, in cents. */
export const Tolerance = z
  .int({ error: 'Give the tolerance in whole cents.' })
  .min(3, { error: 'Nobody hears or holds less than 3 cents; give 3 or more.' })
  .max(40, { error: 'At 40 cents a note is nearly the next one; give 40 or less.' })

export const LEVELS = ['beginner', 'growing', 'trained'] as const
export const Level = z.enum(LEVELS)
export type Level = (typeof LEVELS)[number]

export const LENGTH_UNITS = ['mm', 'cm', 'in'] as const
export const NOTE_NAMES = ['letters', 'german', 'fixed_do'] as const
/** Positions of a bass: half, I, II, II½ … or by the semitone under 1. */
export const BASS_POSITIONS = ['numerals', 'semitones'] as const
export const BOARD_TURNS = ['auto', 'lying', 'upright'] as const

/** Answers to some of the questions that teachers disagree on; what is left out follows the studio, and there the usual. */
export const SomeSchoolChoices = z
  .object({
    tapes: oneOf(SCHOOL_QUESTIONS.tapes.choices),
    waiting_fingers: oneOf(SCHOOL_QUESTIONS.waiting_fingers.choices),
    thumb_violin: oneOf(SCHOOL_QUESTIONS.thumb_violin.choices),
    thumb_cello: oneOf(SCHOOL_QUESTIONS.thumb_cello.choices),
    thumb_bass: oneOf(SCHOOL_QUESTIONS.thumb_bass.choices),
    contact: oneOf(SCHOOL_QUESTIONS.contact.choices),
    fingertip: oneOf(SCHOOL_QUESTIONS.fingertip.choices),
    fourth_finger: oneOf(SCHOOL_QUESTIONS.fourth_finger.choices),
    fourth_on_neighbour: oneOf(SCHOOL_QUESTIONS.fourth_on_neighbour.choices),
    bass_fingering: oneOf(SCHOOL_QUESTIONS.bass_fingering.choices),
    climbing: oneOf(SCHOOL_QUESTIONS.climbing.choices),
    chromatic_scales: oneOf(SCHOOL_QUESTIONS.chromatic_scales.choices),
  } satisfies Record<SchoolQuestion, z.ZodType>)
  .meta({ id: 'Schools' }) satisfies z.ZodType<SomeSchools>

function oneOf<const Choices extends readonly [string, ...string[]]>(choices: Choices) {
  return z.enum(choices, { error: `Choose one of ${choices.join(', ')}.` }).optional()
}

const ItemId = z.string().min(1).max(60)
const OWN_TEXT = 300
const ownText = z
  .string()
  .trim()
  .max(OWN_TEXT, { error: `Keep it to ${OWN_TEXT} characters: it is read beside a child.` })
  .default('')

/** More than anybody asks in a lesson. */
const MOST_OWN_ITEMS = 40

export const OwnSetupItem = z
  .object({
    id: z.string().regex(/^own-[0-9a-z-]{4,40}$/, { error: 'An item of the studio is called own-…' }),
    families: z.array(Family).min(1, { error: 'Choose at least one family that is asked.' }),
    question: line('the question', 160),
    right: ownText,
    wrong: ownText,
    /** Without a reason nobody remembers in a year why it is asked. */
    reason: line('the reason', OWN_TEXT),
    change: ownText,
    test: ownText,
  })
  .meta({ id: 'OwnSetupItem' })

export const SetupArrangement = z
  .object({
    order: z.array(ItemId).max(200).default([]),
    hidden: z
      .array(ItemId)
      .max(200)
      .refine((ids) => !ids.includes('pain'), { error: 'Pain is asked in every round and cannot be hidden.' })
      .default([]),
    own: z
      .array(OwnSetupItem)
      .max(MOST_OWN_ITEMS, { error: `Keep to ${MOST_OWN_ITEMS} items of your own.` })
      .refine((items) => new Set(items.map(({ id }) => id)).size === items.length, {
        error: 'Two items have the same id.',
      })
      .default([]),
  })
  .meta({ id: 'SetupArrangement' })

const days = (what: string) =>
  z
    .int({ error: `Give ${what} in whole days.` })
    .min(7, { error: `Give ${what} as a week or more.` })
    .max(800, { error: `Give ${what} as two years or less.` })

/** Ten years: longer is for ever. */
const MOST_KEPT_DAYS = 3660
const USUAL_TRAIL_DAYS = 730
/** Whoever takes somebody off the roster by mistake notices within a term. */
const SHORTEST_KEPT_DAYS = 90

const keptFor = (most: number) =>
  z
    .int({ error: 'Give the time in whole days.' })
    .min(SHORTEST_KEPT_DAYS, { error: `Keep it for ${SHORTEST_KEPT_DAYS} days or more.` })
    .max(most, { error: `Keep it for ${most} days or less.` })

/** Everything a studio sets once for all its teachers and tablets. What is missing is as usual. */
export const StudioSettings = z
  .object({
    schools: SomeSchoolChoices.default({}),
    tolerances: z
      .object({ beginner: Tolerance, growing: Tolerance, trained: Tolerance })
      .default({ beginner: 20, growing: 15, trained: 10 }),
    /** Hz; ISO 16:1975 has 440. */
    a4Hz: z
      .number({ error: 'Give the pitch of A in Hz.' })
      .min(390, { error: 'Nobody tunes A below 390 Hz: give it as in 440.' })
      .max(470, { error: 'Nobody tunes A above 470 Hz: give it as in 440.' })
      .default(440),
    /** Of tones from this tool, as a part of full. */
    loudness: z.number().min(0).max(LOUDEST).default(QUIET_LOUDNESS),
    lengthUnit: z.enum(LENGTH_UNITS).default('mm'),
    noteNames: z.enum(NOTE_NAMES).default('letters'),
    bassPositions: z.enum(BASS_POSITIONS).default('numerals'),
    boardFacing: z.boolean().default(false),
    boardTurned: z.enum(BOARD_TURNS).default('auto'),
    paper: z.enum(['a4', 'letter']).default('a4'),
    /** In which a day of the studio begins and ends, as in `Pacific/Auckland`; null until a browser has told it. */
    timeZone: z
      .string()
      .max(60)
      .refine(isTimeZone, { error: 'Name a time zone as in Pacific/Auckland.' })
      .nullable()
      .default(null),
    /** Whether the sound of takes may be stored; of a student only with consent as well. */
    keepsSound: z.boolean().default(false),
    intervals: z
      .object({
        remeasureDays: days('the interval of measuring'),
        checkHandDays: days('the interval of checks'),
        seenDays: days('the interval of looking at tapes'),
        warmHandsDays: days('the interval for warm hands'),
        tryWithoutDays: days('the time before trying without'),
      })
      .default({ ...USUAL_INTERVALS, ...USUAL_TAPE_INTERVALS }),
    setup: SetupArrangement.default({
      order: [...USUAL_ARRANGEMENT.order],
      hidden: [...USUAL_ARRANGEMENT.hidden],
      own: [],
    }),
    /** For how long what is not needed any more is kept, days; null, until somebody takes it away. */
    retention: z
      .object({
        /** Everything of a student who was taken off the roster. */
        leftDays: keptFor(MOST_KEPT_DAYS).nullable().default(null),
        /** Sound of students. */
        soundDays: keptFor(MOST_KEPT_DAYS).nullable().default(null),
        /** Who saw and changed what. */
        trailDays: keptFor(MOST_KEPT_DAYS).default(USUAL_TRAIL_DAYS),
      })
      .default({ leftDays: null, soundDays: null, trailDays: USUAL_TRAIL_DAYS }),
    /** What the studio gives to practise beside the tool’s exercises. */
    exercises: OwnExercises.default([]),
  })
  .meta({ id: 'StudioSettings' })

type Shape = typeof StudioSettings.shape
/** Some settings: what is left out stays as it is. */
export const SomeStudioSettings = z
  .object(
    Object.fromEntries(
      Object.entries(StudioSettings.shape).map(([name, setting]) => [name, setting.unwrap().optional()]),
    ) as { [K in keyof Shape]: z.ZodOptional<ReturnType<Shape[K]['unwrap']>> },
  )
  .meta({ id: 'SomeStudioSettings' })

export const Studio = z
  .object({ version: Version, name: line('the name'), system: SystemId, settings: StudioSettings })
  .meta({ id: 'Studio' })

export const StudioChange = z
  .object({
    version: Version,
    name: line('the name').optional(),
    system: SystemId.optional(),
    settings: SomeStudioSettings.optional(),
  })
  .meta({ id: 'StudioChange', examples: [{ version: 1, settings: { noteNames: 'german' } }] })
