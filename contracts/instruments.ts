import { z } from 'zod'
import { Family, FingerNumber, Id, Instant, IsoDate, line, NoteText, SystemId, Version } from './common'

export const Measurement = z
  .object({
    id: Id,
    instrumentId: Id,
    lengthMm: z.number(),
    /** As the teacher wrote it: `12 7/8 in`. */
    typed: z.string(),
    measuredOn: IsoDate,
    by: z.string(),
    recordedAt: Instant,
  })
  .meta({ id: 'Measurement' })

export const MeasurementDraft = z
  .object({
    /** `328`, `32.8 cm` or `12 7/8 in`; a bare number is in mm. */
    length: z.string().max(40, { error: 'Type one length, as in 328 or 12 7/8 in.' }),
    measuredOn: IsoDate,
    /** Keep a length that does not suit the size, after measuring twice. Not for one that no instrument has. */
    keepAnyway: z.boolean().default(false),
  })
  .meta({ id: 'MeasurementDraft', examples: [{ length: '285', measuredOn: '2026-11-28', keepAnyway: true }] })

export const TapeWidth = z
  .number({ error: 'Give the width of the tape in mm.' })
  .min(0.5, { error: 'Give a tape of 0.5 to 12 mm.' })
  .max(12, { error: 'Give a tape of 0.5 to 12 mm.' })

export const TapeSet = z
  .object({
    id: Id,
    instrumentId: Id,
    schoolId: z.string(),
    system: SystemId,
    lengthMm: z.number(),
    tapeWidthMm: z.number(),
    marks: z.array(z.object({ finger: FingerNumber, shapeId: z.string(), middleMm: z.number() })),
    laidOn: IsoDate,
    by: z.string(),
  })
  .meta({ id: 'TapeSet' })

export const TapeSetDraft = z
  .object({ schoolId: z.string().max(40), system: SystemId, tapeWidthMm: TapeWidth, laidOn: IsoDate })
  .meta({
    id: 'TapeSetDraft',
    examples: [{ schoolId: 'first_and_third', system: 'fifths', tapeWidthMm: 3, laidOn: '2026-11-28' }],
  })

const editable = {
  label: line('the instrument’s number or name', 60),
  family: Family,
  sizeId: z.string().max(20),
  tuning: z.array(NoteText).min(3).max(6),
}

export const Instrument = z
  .object({
    id: Id,
    version: Version,
    ...editable,
    measurement: Measurement.nullable(),
    tapeSet: TapeSet.nullable(),
    holder: z.object({ studentId: Id, name: z.string() }).nullable(),
  })
  .meta({ id: 'Instrument' })

export const InstrumentDraft = z
  .object({ ...editable, tuning: editable.tuning.optional() })
  .meta({ id: 'InstrumentDraft', examples: [{ label: 'no. 7', family: 'violin', sizeId: '1/2' }] })

export const InstrumentChange = z
  .object({ version: Version })
  .extend(z.object(editable).omit({ family: true }).partial().shape)
  .meta({ id: 'InstrumentChange', examples: [{ version: 1, sizeId: '3/4' }] })
