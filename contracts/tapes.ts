import { z } from 'zod'
import { TAPE_EVENT_KINDS, TAPE_WIDTHS_MM, WHOLE_INSTRUMENT_KINDS } from '#core'
import { Id, Instant, IsoDate, NoteText, SystemId } from './common'

const [LEAST_WIDTH_MM, MOST_WIDTH_MM] = TAPE_WIDTHS_MM
const WIDTHS = `Give a tape of ${LEAST_WIDTH_MM} to ${MOST_WIDTH_MM} mm.`
export const TapeWidth = z
  .number({ error: 'Give the width of the tape in mm.' })
  .min(LEAST_WIDTH_MM, { error: WIDTHS })
  .max(MOST_WIDTH_MM, { error: WIDTHS })

/** Steps and semitones of the interval above the open string, as in `1.2` for a major second. */
export const MarkId = z
  .string()
  .regex(/^\d{1,2}\.\d{1,2}$/, { error: 'Name the mark by its interval, as in 1.2 for a major second.' })
  .meta({ examples: ['1.2', '3.5'] })

/** On one instrument at once. */
export const MOST_TAPES = 14

/** Longer than any string of the trade. */
export const Place = z
  .number({ error: 'Give the place in mm from the nut.' })
  .positive({ error: 'A place lies on the bridge side of the nut: more than 0 mm.' })
  .max(1500, { error: 'No string is that long: give the place in mm from the nut.' })

const Reason = z.string().trim().max(400, { error: 'Keep the reason to 400 characters.' }).default('')

export const TapeSet = z
  .object({
    id: Id,
    instrumentId: Id,
    schoolId: z.string(),
    system: SystemId,
    lengthMm: z.number(),
    tapeWidthMm: z.number(),
    laidOn: IsoDate,
    by: z.string(),
  })
  .meta({ id: 'TapeSet' })

export const TapeSetDraft = z
  .object({
    /** A school of the family, or `by_hand` with marks of one's own. */
    schoolId: z.string().max(40),
    system: SystemId,
    tapeWidthMm: TapeWidth,
    laidOn: IsoDate,
    /** Where each tape was laid; without them the school's marks are taken as computed. */
    marks: z
      .array(z.object({ markId: MarkId, placeMm: Place }))
      .min(1)
      .max(MOST_TAPES)
      .optional(),
    reason: Reason,
  })
  .meta({
    id: 'TapeSetDraft',
    examples: [{ schoolId: 'first_and_third', system: 'fifths', tapeWidthMm: 3, laidOn: '2026-11-28' }],
  })

export const TapeEvent = z
  .object({
    id: Id,
    instrumentId: Id,
    kind: z.enum(TAPE_EVENT_KINDS),
    markId: z.string().nullable(),
    placeMm: z.number().nullable(),
    on: IsoDate,
    reason: z.string(),
    by: z.string(),
    recordedAt: Instant,
  })
  .meta({ id: 'TapeEvent' })

export const TapeEventDraft = z
  .object({
    kind: z.enum(TAPE_EVENT_KINDS),
    markId: MarkId.nullable().default(null),
    placeMm: Place.nullable().default(null),
    on: IsoDate,
    reason: Reason,
    /** A check that found the tape further off than tapes creep, after looking again. */
    keepAnyway: z.boolean().default(false),
  })
  .refine(({ kind, markId }) => WHOLE_INSTRUMENT_KINDS.includes(kind) === (markId === null), {
    path: ['markId'],
    error: 'Name the tape; only a trial and a changed bridge concern the whole instrument.',
  })
  .refine(
    ({ kind, placeMm }) =>
      !['laid', 'checked', 'crept', 'moved', 'replaced'].includes(kind) || placeMm !== null,
    { path: ['placeMm'], error: 'Say where the tape’s middle lies, in mm from the nut.' },
  )
  .meta({
    id: 'TapeEventDraft',
    examples: [{ kind: 'checked', markId: '1.2', placeMm: 31.7, on: '2026-11-28', reason: '' }],
  })

export const RingFind = z
  .object({
    id: Id,
    instrumentId: Id,
    string: NoteText,
    note: NoteText,
    system: SystemId,
    cents: z.number(),
    placeMm: z.number(),
    isTrusted: z.boolean(),
    foundOn: IsoDate,
    by: z.string(),
  })
  .meta({ id: 'RingFind' })

export const RingFindDraft = z
  .object({
    /** The open string it was found on. */
    string: NoteText,
    /** The note that rang there. */
    note: NoteText,
    system: SystemId,
    placeMm: Place,
    foundOn: IsoDate,
  })
  .meta({
    id: 'RingFindDraft',
    examples: [{ string: 'D4', note: 'E4', system: 'fifths', placeMm: 32.4, foundOn: '2026-11-28' }],
  })

export const RingFindChange = z
  .object({ isTrusted: z.boolean() })
  .meta({ id: 'RingFindChange', examples: [{ isTrusted: true }] })
