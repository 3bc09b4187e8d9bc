import { z } from 'zod'
import {
  FEWEST_STRINGS,
  HIGHEST_STRING_MM,
  IMPORT_BATCH,
  MOST_STRINGS,
  PRESSING_MODES,
  STRING_MATERIALS,
} from '#core'
import { Family, Id, Instant, IsoDate, line, NAME_LENGTH, NoteText, SystemId, Version } from './common'
import { listQuery } from './lists'
import { heightSentence } from './sentences'
import { MarkId, MOST_TAPES, Place, RingFind, RingFindDraft, TapeSet, TapeWidth } from './tapes'

export const MEASURE_METHODS = ['bridge', 'harmonic', 'strings'] as const

export const Measurement = z
  .object({
    id: Id,
    instrumentId: Id,
    /** For all strings; the mean where each was measured. */
    lengthMm: z.number(),
    /** Lowest string first, where each was measured. */
    stringLengthsMm: z.array(z.number()).nullable(),
    /** From nut to bridge, twice the distance to the octave harmonic, or string by string. */
    method: z.enum(MEASURE_METHODS),
    /** As the teacher wrote it: `12 7/8 in`. */
    typed: z.string(),
    measuredOn: IsoDate,
    by: z.string(),
    recordedAt: Instant,
  })
  .meta({ id: 'Measurement' })

const LengthText = z.string().max(40, { error: 'Type one length, as in 328 or 12 7/8 in.' })

export const MeasurementDraft = z
  .object({
    /** `328`, `32.8 cm` or `12 7/8 in`; a bare number is in mm. With `harmonic`, the distance to the octave harmonic. */
    length: LengthText.default(''),
    method: z.enum(['bridge', 'harmonic']).default('bridge'),
    /** One length a string, lowest first, in place of `length`. */
    strings: z.array(LengthText).min(FEWEST_STRINGS).max(MOST_STRINGS).optional(),
    measuredOn: IsoDate,
    /** Keep a length that does not suit the size, after measuring twice. Not for one that no instrument has. */
    keepAnyway: z.boolean().default(false),
  })
  .meta({ id: 'MeasurementDraft', examples: [{ length: '285', measuredOn: '2026-11-28', keepAnyway: true }] })

const height = z
  .number({ error: heightSentence('height_not_a_number') })
  .min(0, { error: heightSentence('height_negative') })
  .max(HIGHEST_STRING_MM, { error: heightSentence('height_too_large') })

const heights = {
  nutHeightMm: height,
  endHeightMm: height,
  material: z.enum(STRING_MATERIALS),
  /** One a string, lowest first, where they are not all of that. */
  materials: z.array(z.enum(STRING_MATERIALS)).max(MOST_STRINGS).readonly().nullish(),
}

/** Whether pressing is reckoned with, and from what. */
export const PressingChoice = z
  .object({
    mode: z.enum(PRESSING_MODES),
    ...heights,
  })
  .meta({ id: 'PressingChoice' })

/** An instrument’s strings as they were on a day: what a check was judged by. */
export const RecordedStringing = z
  .object({
    family: Family,
    tuning: z.array(NoteText),
    system: SystemId,
    lengthsMm: z.array(z.number()),
    pressing: z.object(heights).nullable(),
    /** What places found by ring had taught. */
    calibration: z
      .object({
        lengthCorrectionMm: z.number(),
        nutOffsetMm: z.number(),
        lengthVariance: z.number(),
        nutVariance: z.number(),
        covariance: z.number(),
      })
      .nullable(),
  })
  .meta({ id: 'RecordedStringing' })

export const LABEL_LENGTH = 60

const editable = {
  label: line('the instrument’s number or name', LABEL_LENGTH),
  family: Family,
  sizeId: z.string().max(20),
  tuning: z.array(NoteText).min(FEWEST_STRINGS).max(MOST_STRINGS),
}
const care = {
  pressing: PressingChoice.nullable(),
  /** Its player's hands melt the glue: tapes are looked at sooner. */
  warmHands: z.boolean(),
}

/** A tape that lies on the instrument. */
export const TapeNow = z
  .object({
    markId: z.string(),
    laidMm: z.number(),
    placeMm: z.number(),
    laidOn: IsoDate,
    seenOn: IsoDate,
  })
  .meta({ id: 'TapeNow' })

export const Instrument = z
  .object({
    id: Id,
    version: Version,
    ...editable,
    ...care,
    measurement: Measurement.nullable(),
    tapeSet: TapeSet.nullable(),
    tapes: z.array(TapeNow),
    /** Places found by ring that still hold: since the bridge was changed last, in order of time. */
    ringFinds: z.array(RingFind),
    bridgeChangedOn: IsoDate.nullable(),
    /** When that was written down: of one day, it tells whether the length was measured before. */
    bridgeChangedAt: Instant.nullable(),
    triedWithoutOn: IsoDate.nullable(),
    holder: z.object({ studentId: Id, name: z.string() }).nullable(),
    /** When it was taken out of the cupboard. */
    removedAt: Instant.nullable(),
  })
  .meta({ id: 'Instrument' })

export const CupboardQuery = listQuery(['label', 'kind', 'length', 'holder']).extend({
  family: Family.optional(),
  sizeId: z.string().max(20).optional(),
  /** Those that were taken out of the cupboard, in place of those in it. */
  out: z.enum(['yes']).optional(),
  /** Only those that are with nobody, or only those that are with somebody. */
  holder: z.enum(['none', 'some']).optional(),
  /** Only those with something due on this day. */
  dueOn: IsoDate.optional(),
})

export const InstrumentDraft = z
  .object({ ...editable, tuning: editable.tuning.optional() })
  .meta({ id: 'InstrumentDraft', examples: [{ label: 'no. 7', family: 'violin', sizeId: '1/2' }] })

/** What somebody who is enrolled brings along: written down, measured where a length is given, and lent, all or nothing. */
export const BroughtInstrument = z
  .object({
    sizeId: editable.sizeId,
    /** Named by the server where nothing is given: `own violin, Venn`. */
    label: editable.label.optional(),
    /** As it was measured, `284.5` or `11 3/16 in`; empty where nobody has measured yet. */
    length: LengthText.default(''),
    on: IsoDate,
    /** As for a measurement. */
    keepAnyway: z.boolean().default(false),
  })
  .meta({ id: 'BroughtInstrument', examples: [{ sizeId: '1/2', length: '284.5', on: '2026-11-28' }] })

export const InstrumentChange = z
  .object({ version: Version })
  .extend(
    z
      .object({ ...editable, ...care })
      .omit({ family: true })
      .partial().shape,
  )
  .meta({ id: 'InstrumentChange', examples: [{ version: 1, sizeId: '3/4' }] })

/** More were never found by ring on one instrument, by far. */
const MOST_RINGS = 100

/** What the cupboard's own table says of an instrument in its last cell. */
const KeptBesides = z.strictObject({
  method: z.enum(MEASURE_METHODS).optional(),
  stringLengthsMm: z.array(z.number().positive()).min(FEWEST_STRINGS).max(MOST_STRINGS).readonly().optional(),
  pressing: PressingChoice.optional(),
  warmHands: z.boolean().optional(),
  rings: z.array(RingFindDraft).max(MOST_RINGS).readonly().optional(),
})

export const InstrumentImport = z
  .object({
    measuredOn: IsoDate,
    rows: z
      .array(
        z.object({
          label: editable.label,
          family: Family,
          sizeId: editable.sizeId,
          length: LengthText.optional(),
          tuning: editable.tuning.optional(),
          /** Where it is not that of the whole table. */
          measuredOn: IsoDate.optional(),
          tapes: z
            .array(z.object({ markId: MarkId, placeMm: Place }))
            .min(1)
            .max(MOST_TAPES)
            .optional(),
          tapeWidthMm: TapeWidth.optional(),
          laidOn: IsoDate.optional(),
          /** The name of the student who has it. */
          holder: z.string().trim().max(NAME_LENGTH).optional(),
          besides: KeptBesides.optional(),
        }),
      )
      .min(1)
      .max(IMPORT_BATCH),
  })
  .meta({
    id: 'InstrumentImport',
    examples: [
      {
        measuredOn: '2026-11-28',
        rows: [{ label: 'no. 21', family: 'violin', sizeId: '1/2', length: '284.5' }],
      },
    ],
  })

export const Imported = z
  .object({
    count: z.int(),
    ids: z.array(Id),
    /** Who was said to have an instrument and does not have it now, and why. */
    notLent: z.array(
      z.object({
        label: z.string(),
        name: z.string(),
        why: z.enum(['unknown', 'several', 'has_one', 'other_family']),
      }),
    ),
  })
  .meta({ id: 'Imported' })

/** Instruments of an import that is taken back as a whole. */
export const ImportUndo = z
  .object({ ids: z.array(Id).min(1).max(IMPORT_BATCH) })
  .meta({ id: 'ImportUndo', examples: [{ ids: ['01900000-0000-7000-8000-000000000007'] }] })
