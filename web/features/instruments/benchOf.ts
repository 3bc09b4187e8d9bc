import {
  boardFor,
  chartTapes,
  familyOf,
  lengthsFor,
  marksOfSchool,
  marksWithIds,
  planTapes,
  schoolOf,
  DEFAULT_SYSTEM_ID,
  DEFAULT_TAPE_WIDTH_MM,
  type MarkSpec,
  type TapeMark,
} from '#core'
import type { Instrument } from '#contracts'
import { knownSystem, tuningOf } from '../check/useHand'

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

/** Where an instrument's tapes belong, from its measured length; undefined while nobody has measured it. */
export function chartOf(
  instrument: Instrument,
  marks: readonly MarkSpec[] = marksFor(instrument),
): TapeMark[] | undefined {
  const { measurement, tapeSet } = instrument
  if (!measurement) return undefined
  const family = familyOf(instrument.family)
  const plan = planTapes({
    tuning: tuningOf(instrument),
    system: knownSystem(tapeSet?.system ?? DEFAULT_SYSTEM_ID),
    marks,
  })
  return chartTapes(
    plan,
    {
      lengthsMm: lengthsFor(instrument.tuning.length, measurement),
      boardLengthMm: boardFor(family, measurement.lengthMm).lengthMm,
    },
    { widthMm: tapeSet?.tapeWidthMm ?? DEFAULT_TAPE_WIDTH_MM, contact: 'centre' },
  )
}
