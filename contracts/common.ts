import { z } from 'zod'
import { FAMILY_IDS, parseNote, tuningSystem, type FamilyId } from '#core'

/** Long enough for any name people have, short enough to draw. */
export const NAME_LENGTH = 120
export const NOTE_LENGTH = 4000

export const Id = z.uuid().meta({ id: 'Id', description: 'UUID, version 7' })
export const Version = z.int().min(1).meta({ description: 'Row version; send back the one you read' })
export const IsoDate = z.iso.date({ error: 'Give the date as year-month-day, as in 2026-11-28.' })
export const Instant = z.iso.datetime()
export const Family = z.enum(FAMILY_IDS as [FamilyId, ...FamilyId[]])
export const FingerNumber = z.union([z.literal(1), z.literal(2), z.literal(3), z.literal(4)])
/** 0 the open string, 5 the thumb. */
export const PlayedFinger = z.union([z.literal(0), FingerNumber, z.literal(5)])

/** A line of text that people read: trimmed, not empty, any script. */
export function line(what: string, max: number = NAME_LENGTH) {
  return z
    .string()
    .trim()
    .min(1, { error: `Give ${what}.` })
    .max(max, { error: `Keep ${what} to ${max} characters.` })
    .refine((text) => !/\p{Cc}/u.test(text), { error: `Keep ${what} to one line of text.` })
}

/** Long enough for twelve cents and a name. */
const SYSTEM_LENGTH = 400

export const SystemId = z
  .string()
  .max(SYSTEM_LENGTH)
  .refine((id) => tuningSystem(id) !== undefined, {
    error: 'Choose fifths, equal, just on a keynote as in just:G, or a scale of twelve notes.',
  })
  .meta({ examples: ['fifths', 'equal', 'just:G'] })

export const NoteText = z
  .string()
  .refine((text) => parseNote(text) !== undefined, {
    error: 'Name the note with its octave, as in A4 or B♭3.',
  })
  .meta({ examples: ['A4', 'B♭3'] })
