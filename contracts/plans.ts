import { z } from 'zod'
import { GATE_IDS, PRACTICE_IDS, SETUP_ITEM_IDS } from '#core'
import { MOST_OWN_EXERCISES, OwnExerciseId } from './exercises'
import { Family, FingerNumber, Id, Instant, IsoDate, line } from './common'
import { pageQuery } from './lists'
import { Student } from './students'
import { Finding } from './verdicts'

const ExerciseId = z.union(
  [z.enum(PRACTICE_IDS as [(typeof PRACTICE_IDS)[number], ...typeof PRACTICE_IDS]), OwnExerciseId],
  { error: 'Choose an exercise of the list, or one of the studio’s own.' },
)

/** Longer than anybody practises one thing a day, or all things. */
const LONGEST_MINUTES = 240
const Minutes = z
  .int({ error: 'Give the minutes as a whole number.' })
  .min(1, { error: 'Give a minute or more.' })
  .max(LONGEST_MINUTES, { error: `Keep it to ${LONGEST_MINUTES} minutes a day.` })

/** Why an exercise is planned. */
export const PlanReason = z
  .discriminatedUnion('code', [
    z.object({ code: z.literal('finding'), finding: Finding, on: IsoDate }),
    z.object({
      code: z.literal('setup'),
      itemId: z.enum(SETUP_ITEM_IDS as [(typeof SETUP_ITEM_IDS)[number], ...typeof SETUP_ITEM_IDS]),
      answer: z.enum(['yes', 'nearly', 'no']),
      on: IsoDate,
    }),
    z.object({ code: z.literal('gate'), gate: z.enum(GATE_IDS) }),
    z.object({ code: z.literal('pattern'), patternId: z.string().min(1).max(40) }),
    z.object({ code: z.literal('review'), finding: Finding, times: z.int().min(1), days: z.int().min(1) }),
    z.object({ code: z.literal('piece'), title: line('the title'), finger: FingerNumber.nullable() }),
    z.object({ code: z.literal('asked') }),
  ])
  .meta({ id: 'PlanReason' })

export const PlannedCard = z
  .object({
    exerciseId: ExerciseId,
    on: IsoDate,
    minutes: Minutes,
    reason: PlanReason,
    /** Set by the teacher. */
    isFixed: z.boolean(),
  })
  .meta({ id: 'PlannedCard' })

/** Seven days of everything there is. */
const MOST_CARDS = 7 * (PRACTICE_IDS.length + MOST_OWN_EXERCISES)
const MOST_PIECES = 20

const plan = {
  /** The first day of its week. */
  startsOn: IsoDate,
  family: Family,
  /** What it was planned for; null where the student had none. */
  instrumentId: Id.nullable(),
  minutesADay: Minutes,
  /** Days of practice, 0 is Sunday. */
  weekdays: z
    .array(z.int().min(0).max(6))
    .min(1, { error: 'Choose a day of practice at least.' })
    .max(7)
    .refine((days) => new Set(days).size === days.length, { error: 'Name each day once.' }),
  cards: z
    .array(PlannedCard)
    .max(MOST_CARDS, { error: 'These are more exercises than a week has room for.' }),
  /** Old pieces for the end of practice, by title. */
  pieces: z.array(line('the title')).max(MOST_PIECES, { error: `Keep it to ${MOST_PIECES} pieces.` }),
}

/** A week’s plan as it was given. */
export const Plan = z
  .object({ id: Id, studentId: Id, ...plan, by: z.string(), at: Instant })
  .meta({ id: 'Plan' })

export const PlanDraft = z
  .object({
    ...plan,
    pieces: plan.pieces.default([]),
    /** The plan of this week that was there when it was made; null where there was none. */
    after: Id.nullable(),
  })
  .meta({
    id: 'PlanDraft',
    examples: [
      {
        startsOn: '2026-11-28',
        family: 'violin',
        instrumentId: null,
        minutesADay: 15,
        weekdays: [6, 0, 1, 3, 4],
        cards: [
          {
            exerciseId: 'shake_out',
            on: '2026-11-28',
            minutes: 5,
            reason: { code: 'asked' },
            isFixed: false,
          },
        ],
        pieces: ['Ferry Steps'],
        after: null,
      },
    ],
  })

const MOST_TIMES = 1000
/** More than a month of everything. */
const MOST_ENTRIES = 400

const entry = {
  exerciseId: ExerciseId,
  on: IsoDate,
  /** False takes back what was said of this day. */
  isDone: z.boolean(),
  minutes: Minutes.nullable(),
  times: z.int().min(1).max(MOST_TIMES).nullable(),
}

/** What was done of an exercise on a day, as it was said last. */
export const PracticeEntry = z
  .object({ studentId: Id, ...entry, by: z.string(), at: Instant })
  .meta({ id: 'PracticeEntry' })

export const PracticeDraft = z
  .object({
    entries: z
      .array(z.object({ ...entry, minutes: entry.minutes.default(null), times: entry.times.default(null) }))
      .min(1, { error: 'Say what was done.' })
      .max(MOST_ENTRIES),
  })
  .meta({
    id: 'PracticeDraft',
    examples: [{ entries: [{ exerciseId: 'shake_out', on: '2026-11-28', isDone: true, minutes: 5 }] }],
  })

/** One student of a class, with the plan that runs and what was done of it. */
export const ClassRow = z
  .object({ student: Student, plan: Plan, done: z.array(PracticeEntry) })
  .meta({ id: 'ClassRow' })

const CLASS_PAGE = 50

/** How often an exercise was practised for something, and how often a later look told it no more. */
export const MendCount = z
  .object({
    exerciseId: ExerciseId,
    /** A finding’s code, or `setup ` and an item. */
    reason: z.string().max(60),
    tried: z.int().min(1),
    mended: z.int().min(0),
  })
  .meta({ id: 'MendCount' })

/** A page of students who had a plan: what followed in their files. */
export const MendsQuery = z.object(pageQuery(CLASS_PAGE))

/** A stretch of days; the last is in it. */
export const ClassQuery = z
  .object({ from: IsoDate, to: IsoDate, family: Family.optional(), ...pageQuery(CLASS_PAGE) })
  .meta({ examples: [{ from: '2026-11-22', to: '2026-11-28' }] })
