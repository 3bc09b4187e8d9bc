export type LengthUnit = 'mm' | 'cm' | 'in'

export const MM_PER_UNIT: Record<LengthUnit, number> = { mm: 1, cm: 10, in: 25.4 }

export type ParsedLength =
  | { readonly ok: true; readonly lengthMm: number; readonly number: number; readonly unit: LengthUnit }
  | { readonly ok: false; readonly code: 'length_empty' | 'length_not_a_number' | 'length_not_positive' }

/** A map, since people type anything: an object has a `constructor`. */
const UNITS: ReadonlyMap<string, LengthUnit> = new Map([
  ['mm', 'mm'],
  ['cm', 'cm'],
  ['in', 'in'],
  ['inch', 'in'],
  ['inches', 'in'],
  ['"', 'in'],
  ['″', 'in'],
  ['”', 'in'],
  ["''", 'in'],
  ['’’', 'in'],
  ['′′', 'in'],
])
const FRACTION_SIGNS: Record<string, string> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
  '⅒': '1/10',
}

/** Text with its fractions written out, as in `12⅞` → `12 7/8`. */
export function plainFractions(text: string): string {
  return text.replace(/[½¼¾⅛⅜⅝⅞⅒]/g, (sign) => ` ${FRACTION_SIGNS[sign] ?? ''}`).replaceAll('⁄', '/')
}

/**
 * Reads a length as a teacher writes it: `328`, `32,8 cm`, `12 7/8 in`, `12-7/8''`, `12⅞"`, `.5 in`; `1,050` in millimetres is a thousand
 * and fifty, since nobody measures thousandths of one. A bare number is in `defaultUnit`.
 * Says nothing about whether an instrument can be that long; {@link judgeLength} does.
 */
export function parseLength(text: string, defaultUnit: LengthUnit = 'mm'): ParsedLength {
  const plain = plainFractions(text).toLowerCase().trim()
  if (plain === '') return { ok: false, code: 'length_empty' }
  const match =
    /^([-−])?(\d+(?:[.,]\d+)?|[.,]\d+)?(?:(?<![.,]\d*)\s+(\d+)\s*\/\s*([1-9]\d*))?\s*([a-z"″”'’′]*)$/.exec(
      splitWholeFromFraction(plain),
    )
  const unit = match && (match[5] ? UNITS.get(match[5]) : defaultUnit)
  if (!match || !unit || (match[2] === undefined && match[3] === undefined))
    return { ok: false, code: 'length_not_a_number' }
  const whole = match[2] ?? '0'
  const number =
    Number(unit === 'mm' && THOUSANDS.test(whole) ? whole.replace(',', '') : whole.replace(',', '.')) +
    (match[3] ? Number(match[3]) / Number(match[4]) : 0)
  // Four hundred figures are more than a number holds.
  if (!Number.isFinite(number * MM_PER_UNIT[unit])) return { ok: false, code: 'length_not_a_number' }
  if (match[1] || !(number > 0)) return { ok: false, code: 'length_not_positive' }
  return { ok: true, lengthMm: number * MM_PER_UNIT[unit], number, unit }
}

const THOUSANDS = /^[1-9],\d{3}$/

/** `7/8` alone is a fraction, not a 7 followed by a broken one: give the pattern its whole number. A hyphen joins the two as a space does. */
function splitWholeFromFraction(hyphened: string): string {
  const text = hyphened.replace(/(\d)\s*[-–]\s*(\d+\s*\/)/, '$1 $2')
  return /^[-−]?\d+\s*\/\s*\d/.test(text) ? text.replace(/^([-−]?)/, '$10 ') : text
}
