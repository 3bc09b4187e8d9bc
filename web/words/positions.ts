import { FAMILY_IDS, familyOf, type Position } from '#core'
import { count } from './numbers'
import { shown } from './shown'

const ORDINALS: Record<string, string> = {
  half: 'half',
  first: '1st',
  second: '2nd',
  third: '3rd',
  fourth: '4th',
  fifth: '5th',
  sixth: '6th',
  seventh: '7th',
  eighth: '8th',
  ninth: '9th',
  tenth: '10th',
  eleventh: '11th',
  twelfth: '12th',
  thirteenth: '13th',
}

/**
 * Of a bass, by the semitones under its first finger. Common practice, no source. The other common way
 * counts the semitones themselves.
 */
const BASS_NUMERALS = ['', 'half', 'I', 'II', 'II½', 'III', 'III½', 'IV', 'V', 'V½', 'VI', 'VI½', 'VII']

function isOfBass({ letter }: Position): boolean {
  return letter === undefined
}

/** `half`, `1st`, `3rd`; of a bass `II½`, or as the studio has it `5 st`, the semitones under the first finger. */
export function shortPositionName(position: Position): string {
  const semitones = position.firstFingerSemitones[0] ?? 0
  if (!isOfBass(position)) return ORDINALS[position.id] ?? position.id
  return shown.bassPositions === 'semitones'
    ? `${semitones} st`
    : (BASS_NUMERALS[semitones] ?? `${semitones} st`)
}

/** With the place where a position has two: `lower 2nd`. */
export function shortPlaceName(position: Position, place: 'lower' | 'upper' | undefined): string {
  return place === undefined ? shortPositionName(position) : `${place} ${shortPositionName(position)}`
}

/** `half position`, `third position`; of a bass `position II½`, or `1 at 4 semitones`. */
export function positionName(position: Position): string {
  const semitones = position.firstFingerSemitones[0] ?? 0
  if (!isOfBass(position)) return `${position.id} position`
  const numeral = BASS_NUMERALS[semitones]
  if (shown.bassPositions === 'semitones' || numeral === undefined)
    return `1 at ${count(semitones, 'semitone')}`
  return semitones === 1 ? 'half position' : `position ${numeral}`
}

/** The same by its id alone, whichever family has it. */
export function positionNamed(id: string): string {
  const all = FAMILY_IDS.flatMap((family) => familyOf(family).positions)
  const position = all.find((one) => one.id === id)
  return position ? positionName(position) : id
}
