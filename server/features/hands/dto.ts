import type { HandMeasurement } from '#contracts'
import type { HandMeasurementRow } from '../../db/rows'
import type { By } from '../../db/studio-store'

export function handDto(row: By<HandMeasurementRow>): HandMeasurement {
  return {
    id: row.id,
    measuredOn: row.measuredOn,
    comfortableSpanMm: row.comfortableSpanMm,
    reachedSpanMm: row.reachedSpanMm,
    fingerLengthsMm: row.fingerLengthsMm,
    fingertipWidthMm: row.fingertipWidthMm,
    thumb: row.thumb as HandMeasurement['thumb'],
    by: row.by,
  }
}

/** A hand as it is now, from what was measured of it, newest first: what was left out last time is taken from before. */
export function handNow(rows: readonly By<HandMeasurementRow>[]): HandMeasurement | null {
  const [newest] = rows
  if (!newest) return null
  const last = <K extends 'fingertipWidthMm' | 'thumb'>(key: K) =>
    rows.find((row) => row[key] !== null)?.[key] ?? null
  // Finger by finger: who measures one again has not forgotten the others.
  const lengths = Object.assign({}, ...rows.map((row) => row.fingerLengthsMm ?? {}).reverse()) as NonNullable<
    HandMeasurement['fingerLengthsMm']
  >
  return handDto({
    ...newest,
    fingerLengthsMm: Object.keys(lengths).length > 0 ? lengths : null,
    fingertipWidthMm: last('fingertipWidthMm'),
    thumb: last('thumb'),
  })
}
