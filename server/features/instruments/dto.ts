import {
  lastDayOf,
  tapesNow,
  type FamilyId,
  type TapedInstrument,
  type TapeEvent as LoggedEvent,
  type TapeEventKind,
} from '#core'
import type { Instrument, Measurement, PressingChoice, RingFind, TapeSet } from '#contracts'
import type { MeasurementRow, RingFindRow, TapeEventRow, TapeSetRow } from '../../db/rows'
import type { By } from '../../db/studio-store'
import type { DueFacts, InstrumentFacts } from './repository'

export function measurementDto(row: By<MeasurementRow>): Measurement {
  return {
    id: row.id,
    instrumentId: row.instrumentId,
    lengthMm: row.lengthMm,
    stringLengthsMm: row.stringLengthsMm,
    method: row.method as Measurement['method'],
    typed: row.typed,
    measuredOn: row.measuredOn,
    by: row.by,
    recordedAt: row.recordedAt.toISOString(),
  }
}

export function tapeSetDto(
  row: By<Omit<TapeSetRow, 'studioId' | 'userId' | 'marks' | 'recordedAt'>>,
): TapeSet {
  return {
    id: row.id,
    instrumentId: row.instrumentId,
    schoolId: row.schoolId,
    system: row.system,
    lengthMm: row.lengthMm,
    tapeWidthMm: row.tapeWidthMm,
    laidOn: row.laidOn,
    by: row.by,
  }
}

export function findDto(row: By<RingFindRow>): RingFind {
  return {
    id: row.id,
    instrumentId: row.instrumentId,
    string: row.string,
    note: row.note,
    system: row.system,
    cents: row.cents,
    placeMm: row.placeMm,
    isTrusted: Boolean(row.isTrusted),
    foundOn: row.foundOn,
    by: row.by,
  }
}

/** What is kept of an instrument's tapes. */
export function tapedDto({ instrument, measurement, events: rows }: DueFacts): TapedInstrument {
  const events = rows.map(loggedEvent)
  const bridge = rows.findLast((event) => event.kind === 'bridge_changed')
  return {
    warmHands: Boolean(instrument.warmHands),
    tapes: tapesNow(events).map(({ markId, laidMm, placeMm, laidOn, seenOn }) => ({
      markId,
      laidMm,
      placeMm,
      laidOn,
      seenOn,
    })),
    measurement: measurement
      ? { measuredOn: measurement.measuredOn, recordedAt: measurement.recordedAt.toISOString() }
      : null,
    bridgeChangedOn: bridge?.onDate ?? null,
    bridgeChangedAt: bridge?.recordedAt.toISOString() ?? null,
    triedWithoutOn: lastDayOf('trial', events) ?? null,
  }
}

export function instrumentDto(facts: InstrumentFacts): Instrument {
  const { instrument, measurement, tapeSet, holder } = facts
  const taped = tapedDto(facts)
  return {
    ...taped,
    id: instrument.id,
    version: instrument.version,
    label: instrument.label,
    family: instrument.family as FamilyId,
    sizeId: instrument.sizeId,
    tuning: instrument.tuning,
    pressing: instrument.pressing as PressingChoice | null,
    measurement: measurement ? measurementDto(measurement) : null,
    tapeSet: tapeSet ? tapeSetDto(tapeSet) : null,
    tapes: [...taped.tapes],
    ringFinds: facts.finds.map(findDto),
    holder: holder ? { studentId: holder.id, name: holder.name } : null,
    removedAt: instrument.removedAt?.toISOString() ?? null,
  }
}

/** An entry of the log as the core reads it. */
export function loggedEvent({ kind, markId, placeMm, onDate }: TapeEventRow): LoggedEvent {
  return { kind: kind as TapeEventKind, markId, placeMm, on: onDate }
}
