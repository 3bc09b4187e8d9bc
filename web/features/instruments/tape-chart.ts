import {
  chartTapes,
  isThere,
  DEFAULT_TAPE_WIDTH_MM,
  familyOf,
  marksOfSchool,
  marksWithIds,
  planTapes,
  schoolOf,
  type MarkSpec,
  type PlannedMark,
  type Stringing,
  type TapeMark,
} from '#core'
import type { Instrument } from '#contracts'

/** The marks that an instrument's tapes are, or that its family's usual school asks for. */
export function marksFor(instrument: Instrument): MarkSpec[] {
  const family = familyOf(instrument.family)
  const lying = marksWithIds(
    family,
    instrument.tapes.map((tape) => tape.markId),
  )
  if (lying.length > 0) return lying
  const school = schoolOf(family, instrument.tapeSet?.schoolId ?? family.defaultSchoolId)
  return school ? marksOfSchool(family, school) : []
}

function planOf(instrument: Instrument, stringing: Stringing): PlannedMark[] {
  return planTapes(stringing, marksFor(instrument))
}

/** Those of its tapes that have no place on its strings. */
export function marksWithoutPlace(instrument: Instrument, stringing: Stringing): PlannedMark[] {
  return planOf(instrument, stringing).filter((mark) => !isThere(stringing, mark))
}

/** Where an instrument's tapes belong on its strings. */
export function chartOf(instrument: Instrument, stringing: Stringing): TapeMark[] {
  return chartTapes(stringing, planOf(instrument, stringing), {
    widthMm: instrument.tapeSet?.tapeWidthMm ?? DEFAULT_TAPE_WIDTH_MM,
    contact: 'centre',
  })
}
