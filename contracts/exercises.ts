import { z } from 'zod'
import {
  FAMILY_IDS,
  familyOf,
  MENDED,
  MOST_WRITTEN,
  parseWritten,
  PRACTICE_PARTS,
  SETUP_ITEM_IDS,
  type OwnExerciseId as CoreId,
} from '#core'
import { Family, line } from './common'

/** More than a studio teaches. */
export const MOST_OWN_EXERCISES = 60
const HOW_LENGTH = 400
const STOP_LENGTH = 160
/** The longest way to write the longest line. */
const NOTES_LENGTH = 8 * MOST_WRITTEN
const LONGEST_MINUTES = 60
const MOST_TIMES = 200
const OLDEST = 20

export const OwnExerciseId = z
  .templateLiteral(['own-', z.string().regex(/^[0-9a-z-]{4,36}$/)], {
    error: 'An exercise of the studio is called own-…',
  })
  .meta({ id: 'OwnExerciseId' }) satisfies z.ZodType<CoreId>

/** An exercise that a studio added: in its own words, with a dose, and notes where it has some. */
export const OwnExercise = z
  .object({
    id: OwnExerciseId,
    name: line('the name', 40),
    how: line('how it is done', HOW_LENGTH),
    stop: z
      .string()
      .trim()
      .max(STOP_LENGTH, { error: `Keep it to ${STOP_LENGTH} characters.` })
      .default(''),
    part: z.enum(PRACTICE_PARTS),
    families: z.array(Family).min(1, { error: 'Choose at least one family that plays it.' }),
    minutes: z
      .int({ error: 'Give the minutes a day as a whole number.' })
      .min(1, { error: 'Give a minute a day or more.' })
      .max(LONGEST_MINUTES, { error: `Keep it to ${LONGEST_MINUTES} minutes a day.` }),
    times: z.int().min(1).max(MOST_TIMES).nullable().default(null),
    fromAge: z.int().min(3).max(OLDEST).nullable().default(null),
    findings: z.array(z.enum(MENDED)).max(MENDED.length).default([]),
    items: z
      .array(z.enum(SETUP_ITEM_IDS as [(typeof SETUP_ITEM_IDS)[number], ...typeof SETUP_ITEM_IDS]))
      .max(SETUP_ITEM_IDS.length)
      .default([]),
    notes: z.string().trim().max(NOTES_LENGTH).default(''),
    writtenFor: z.enum(FAMILY_IDS),
    isOffered: z.boolean().default(true),
  })
  .refine(({ notes, writtenFor }) => parseWritten(notes, familyOf(writtenFor).tuning[0]!).ok, {
    path: ['notes'],
    error: 'Write the notes by their letters, as in D4 E F# G.',
  })
  .meta({ id: 'OwnExercise' })

export const OwnExercises = z
  .array(OwnExercise)
  .max(MOST_OWN_EXERCISES, { error: `Keep to ${MOST_OWN_EXERCISES} exercises of your own.` })
  .refine((all) => new Set(all.map(({ id }) => id)).size === all.length, {
    error: 'Two exercises have the same id.',
  })
