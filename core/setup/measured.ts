import { parseLength } from '../instrument'

export type ReadMeasure =
  | { readonly code: 'empty' }
  | { readonly code: 'unreadable' }
  | { readonly code: 'value'; readonly value: number }

/**
 * Reads what was measured as a teacher writes it, behind as well as in front: lengths as `-18`, `−2.5 cm` or `12 7/8 in`, in mm
 * where no unit is named; degrees and counts as `6`, `−6,5` or `31°`.
 */
export function readMeasure(text: string, unit: 'mm' | 'degrees' | 'times'): ReadMeasure {
  const plain = text.trim().replace('−', '-')
  if (plain === '') return { code: 'empty' }
  const value = unit === 'mm' ? signedLength(plain) : bareNumber(plain)
  return Number.isFinite(value) ? { code: 'value', value } : { code: 'unreadable' }
}

function bareNumber(plain: string): number {
  const match = /^(-?\d+(?:[.,]\d+)?)\s*°?$/.exec(plain)
  return match ? Number(match[1]!.replace(',', '.')) : NaN
}

/** {@link parseLength} knows no length of nothing, and none behind the nut. */
function signedLength(plain: string): number {
  const bare = plain.replace(/^-\s*/, '')
  if (/^0+([.,]0*)?\s*(mm|cm|in)?$/.test(bare)) return 0
  const parsed = parseLength(bare)
  if (!parsed.ok) return NaN
  return plain.startsWith('-') ? -parsed.lengthMm : parsed.lengthMm
}
