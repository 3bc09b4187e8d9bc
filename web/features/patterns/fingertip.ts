import { TYPICAL_FINGERTIP_MM } from '#core'
import type { Student } from '#contracts'

/** Age at which hands have an adult's fingertips, about. From memory. */
const ADULT_AGE = 14

/** Width of a student's fingertips, measured or, said as such, typical. */
export function fingertipOf(
  student: Student | undefined,
  year: number,
): { readonly widthMm: number; readonly isMeasured: boolean } {
  const measured = student?.hand?.fingertipWidthMm
  if (measured) return { widthMm: measured, isMeasured: true }
  const isChild = student?.birthYear ? year - student.birthYear < ADULT_AGE : false
  return { widthMm: TYPICAL_FINGERTIP_MM[isChild ? 'child' : 'adult'], isMeasured: false }
}
