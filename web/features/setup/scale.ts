import { familyOf } from '#core'
import type { Student } from '#contracts'

/** String length of a student’s instrument for the full size’s; 1 where it is not known. */
export function scaleOf(student: Student | undefined): number {
  const { instrument } = student ?? {}
  if (!instrument?.measurement) return 1
  return instrument.measurement.lengthMm / familyOf(instrument.family).board.stringLengthMm
}
