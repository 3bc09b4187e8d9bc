import { z } from 'zod'
import { Family, Id, Instant, IsoDate, line, NOTE_LENGTH, SystemId, Version } from './common'
import { CheckSummary } from './checks'
import { HandMeasurement } from './hands'
import { BroughtInstrument, Instrument } from './instruments'
import { LONGEST_PAGE } from './limits'
import { listQuery, pageQuery } from './lists'
import { Level, SomeSchoolChoices, Tolerance } from './settings'
import { Pain, SetupNow } from './setup'

export const Lesson = z.object({
  /** 0 is Sunday. */
  weekday: z.int().min(0).max(6),
  time: z
    .string()
    .regex(/^([01]\d|2[0-3]):[0-5]\d$/, { error: 'Give the time as hours and minutes, as in 09:30.' }),
})

/** That sound of this student may be stored, and who said so. */
export const SoundConsent = z
  .object({
    on: IsoDate,
    by: line('who gave the consent').meta({ examples: ['Mrs Venn, mother'] }),
  })
  .meta({ id: 'SoundConsent' })

const editable = {
  name: line('the name').meta({ examples: ['Orla Venn'] }),
  birthYear: z
    .int({ error: 'Give the year of birth in four figures.' })
    .min(1000, { error: 'Give the year of birth in four figures.', abort: true })
    .min(1900, { error: 'Nobody born so long ago has lessons now: look at the year of birth again.' })
    .max(2100, { error: 'This year of birth is still to come: look at it again.' })
    .nullable(),
  family: Family,
  /** Cents; of a student with a level, the studio’s for that level. */
  toleranceCents: Tolerance,
  /** Whose tolerance the studio sets; null where this student has one of their own. */
  level: Level.nullable(),
  /** Tape school of the family; null follows the family's default. */
  tapeSchoolId: z.string().max(40).nullable(),
  /** Tuning system of this student’s places; null follows the studio. Tapes laid go before both. */
  system: SystemId.nullable(),
  /** In what this student is taught otherwise than the studio teaches. */
  schools: SomeSchoolChoices,
  lesson: Lesson.nullable(),
  /** Null where nobody gave it: withdrawn, every recording of the student is removed for good. */
  soundConsent: SoundConsent.nullable(),
  note: z.string().max(NOTE_LENGTH, { error: `Keep the note to ${NOTE_LENGTH} characters.` }),
}

export const Student = z
  .object({
    id: Id,
    version: Version,
    ...editable,
    removedAt: Instant.nullable(),
    instrument: Instrument.nullable(),
    lastCheck: CheckSummary.nullable(),
    /** The one thing that was agreed, with the check it was agreed at: it stands until another is named, or it is mended. */
    workingOn: z.object({ checkId: Id, workOn: z.string(), since: Instant }).nullable(),
    /** The hand as it was measured last; of what was not measured then, the last that was. */
    hand: HandMeasurement.nullable(),
    /** How the setup stands; null where it was never looked at. */
    setup: SetupNow.nullable(),
    /** Told and not cleared yet. */
    pains: z.array(Pain),
  })
  .meta({ id: 'Student' })

export const StudentDraft = z
  .object({
    ...editable,
    birthYear: editable.birthYear.default(null),
    toleranceCents: Tolerance.default(20),
    level: editable.level.default(null),
    schools: editable.schools.default({}),
    tapeSchoolId: editable.tapeSchoolId.default(null),
    system: editable.system.default(null),
    lesson: editable.lesson.default(null),
    soundConsent: editable.soundConsent.default(null),
    note: editable.note.default(''),
    instrument: BroughtInstrument.nullable().default(null),
  })
  .meta({
    id: 'StudentDraft',
    examples: [
      {
        name: 'Orla Venn',
        family: 'violin',
        birthYear: 2017,
        toleranceCents: 20,
        lesson: { weekday: 6, time: '09:30' },
      },
    ],
  })

export const StudentChange = z
  .object({ version: Version })
  .extend(z.object(editable).partial().shape)
  .meta({ id: 'StudentChange', examples: [{ version: 1, name: 'Orla Venn-Marsh' }] })

export const RosterQuery = listQuery(['name', 'instrument', 'length', 'lesson', 'checked'])

/** Days of the week as in {@link Lesson}. */
const Weekday = z.int().min(0).max(6)

export const LessonsQuery = z.object({
  from: z.coerce
    .number<number>({ error: 'Give the day of the week as 0 (Sunday) to 6.' })
    .pipe(Weekday)
    .default(0),
  ...pageQuery(LONGEST_PAGE),
})

/** Of a day a page, by time, and how many lessons it has. */
export const NextLessons = z.object({
  weekday: Weekday.nullable(),
  total: z.int(),
  students: z.array(Student),
})

export const LoanDraft = z
  .object({
    /** Null takes the present instrument back. */
    instrumentId: Id.nullable(),
    on: IsoDate,
  })
  .meta({
    id: 'LoanDraft',
    examples: [{ instrumentId: '00000000-0000-7000-8000-000000000000', on: '2026-11-28' }],
  })
