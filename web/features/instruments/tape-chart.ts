import {
  chartTapes,
  DEFAULT_TAPE_WIDTH_MM,
  familyOf,
  marksOfSchool,
  marksWithIds,
  planTapes,
  schoolOf,
  type MarkSpec,
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

/** Where an instrument's tapes belong on its strings. */
export function chartOf(instrument: Instrument, stringing: Stringing): TapeMark[] {
  return chartTapes(stringing, planTapes(stringing, marksFor(instrument)), {
    widthMm: instrument.tapeSet?.tapeWidthMm ?? DEFAULT_TAPE_WIDTH_MM,
    contact: 'centre',
  })
}
