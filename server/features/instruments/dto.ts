import type { FamilyId, Finger } from '#core'
import type { Instrument, Measurement, TapeSet } from '#contracts'
import type { MeasurementRow, TapeSetRow } from '../../db/rows'
import type { InstrumentFacts } from './repository'

export type TeacherNames = ReadonlyMap<string, string>

export function measurementDto(row: MeasurementRow, names: TeacherNames): Measurement {
  return {
    id: row.id,
    instrumentId: row.instrumentId,
    lengthMm: row.lengthMm,
    typed: row.typed,
    measuredOn: row.measuredOn,
    by: names.get(row.userId) ?? '',
    recordedAt: row.recordedAt.toISOString(),
  }
}

export function tapeSetDto(row: TapeSetRow, names: TeacherNames): TapeSet {
  return {
    id: row.id,
    instrumentId: row.instrumentId,
    schoolId: row.schoolId,
    system: row.system,
    lengthMm: row.lengthMm,
    tapeWidthMm: row.tapeWidthMm,
    marks: row.marks.map(({ finger, shapeId, middleMm }) => ({
      finger: finger as Finger,
      shapeId,
      middleMm,
    })),
    laidOn: row.laidOn,
    by: names.get(row.userId) ?? '',
  }
}

export function instrumentDto(facts: InstrumentFacts, names: TeacherNames): Instrument {
  const { instrument, measurement, tapeSet, holder } = facts
  return {
    id: instrument.id,
    version: instrument.version,
    label: instrument.label,
    family: instrument.family as FamilyId,
    sizeId: instrument.sizeId,
    tuning: instrument.tuning,
    measurement: measurement ? measurementDto(measurement, names) : null,
    tapeSet: tapeSet ? tapeSetDto(tapeSet, names) : null,
    holder: holder ? { studentId: holder.id, name: holder.name } : null,
  }
}
