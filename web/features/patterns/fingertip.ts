import { sizeOf, TYPICAL_FINGERTIP_MM, type Family } from '#core'
import type { Student } from '#contracts'

/** Age at which hands have an adult's fingertips, about, and up to which a child's are small. From memory. */
const ADULT_AGE = 14
const SMALL_AGE = 6
/** Strings so much shorter than a full size's belong to a child, and to a small one. From memory. */
const CHILD_PART = 0.95
const SMALL_PART = 0.72

/** What a fingertip's width is known by. */
export type FingertipSource = 'measured' | 'age' | 'size' | 'nothing'

/** Width of a student's fingertips: measured, or typical of the age, or else of who plays an instrument of this size. */
export function fingertipOf(
  student: Student | undefined,
  year: number,
  family: Family,
  sizeId: string,
): { readonly widthMm: number; readonly source: FingertipSource } {
  const measured = student?.hand?.fingertipWidthMm
  if (measured) return { widthMm: measured, source: 'measured' }
  const { smallChild, child, adult } = TYPICAL_FINGERTIP_MM
  if (student?.birthYear) {
    const age = year - student.birthYear
    return { widthMm: age <= SMALL_AGE ? smallChild : age < ADULT_AGE ? child : adult, source: 'age' }
  }
  const size = sizeOf(family, sizeId)
  if (!size) return { widthMm: adult, source: 'nothing' }
  const part = size.typicalLengthMm / family.board.stringLengthMm
  return { widthMm: part <= SMALL_PART ? smallChild : part < CHILD_PART ? child : adult, source: 'size' }
}
