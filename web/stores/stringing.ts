import { stringingOfInstrument, type Stringing } from '#core'
import type { Instrument } from '#contracts'
import { useStudio } from './studio'

/**
 * An instrument's strings in the system that governs it, or in the one that is named; whoever holds it has a say. Beside the
 * store, not in it: the page that one meets first draws no string, and does not carry what strings are reckoned with.
 */
export function studioStringing(of: Instrument, systemId?: string): Stringing {
  const studio = useStudio()
  const holder = studio.student(of.holder?.studentId ?? '')
  return stringingOfInstrument(of, systemId ?? studio.systemOf(of, holder))
}
