import { lastDayOf, tapesNow, type FamilyId, type TapeEvent as LoggedEvent, type TapeEventKind } from '#core'
import type { Instrument, Measurement, PressingChoice, TapeSet } from '#contracts'
import type { MeasurementRow, TapeEventRow, TapeSetRow } from '../../db/rows'
import type { InstrumentFacts } from './repository'

export type TeacherNames = ReadonlyMap<string, string>

export function measurementDto(row: MeasurementRow, names: TeacherNames): Measurement {
  return {
    id: row.id,
    instrumentId: row.instrumentId,
    lengthMm: row.lengthMm,
    stringLengthsMm: row.stringLengthsMm,
    method: row.method as Measurement['method'],
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
    laidOn: row.laidOn,
    by: names.get(row.userId) ?? '',
  }
}

export function instrumentDto(facts: InstrumentFacts, names: TeacherNames): Instrument {
  const { instrument, measurement, tapeSet, holder } = facts
  const events = facts.events.map(loggedEvent)
  return {
    id: instrument.id,
    version: instrument.version,
    label: instrument.label,
    family: instrument.family as FamilyId,
    sizeId: instrument.sizeId,
    tuning: instrument.tuning,
    pressing: instrument.pressing as PressingChoice | null,
    warmHands: Boolean(instrument.warmHands),
    measurement: measurement ? measurementDto(measurement, names) : null,
    tapeSet: tapeSet ? tapeSetDto(tapeSet, names) : null,
    tapes: tapesNow(events).map(({ markId, laidMm, placeMm, laidOn, seenOn }) => ({
      markId,
      laidMm,
      placeMm,
      laidOn,
      seenOn,
    })),
    bridgeChangedOn: lastDayOf('bridge_changed', events) ?? null,
    triedWithoutOn: lastDayOf('trial', events) ?? null,
    holder: holder ? { studentId: holder.id, name: holder.name } : null,
  }
}

/** An entry of the log as the core reads it. */
export function loggedEvent({ kind, markId, placeMm, onDate }: TapeEventRow): LoggedEvent {
  return { kind: kind as TapeEventKind, markId, placeMm, on: onDate }
}
