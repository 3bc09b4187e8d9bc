import { MM_PER_UNIT } from '#core'
import { shown } from './shown'

/** A place or distance: mm to one decimal, with a real minus. */
export function mm(value: number): string {
  return withMinus(tenths(value))
}

/** A length with its unit, as the studio writes lengths: `31.6 mm`, `3.16 cm`, `1 1/4 in`. `decimals` of mm. */
export function length(valueMm: number, decimals: 0 | 1 = 1): string {
  const { lengthUnit } = shown
  if (lengthUnit === 'in') return `${inches(valueMm)} in`
  if (lengthUnit === 'cm') return `${withMinus((valueMm / 10).toFixed(decimals + 1))} cm`
  return `${decimals === 0 ? withMinus(valueMm.toFixed(0)) : mm(valueMm)} mm`
}

/** The unit in which the studio writes lengths. */
export function unitName(): string {
  return shown.lengthUnit
}

/** A length in the studio’s unit, for a column that names the unit in its head. */
export function inUnit(valueMm: number): string {
  return length(valueMm).replace(/ (?:mm|cm|in)$/, '')
}

/** How far something is off, with its sign and unit: `+0.4 mm`. */
export function signedLength(valueMm: number): string {
  return valueMm > 0 ? `+${length(valueMm)}` : length(valueMm)
}

/** The finest mark of an inch rule. */
const PARTS_OF_INCH = 32

/** Inches to the nearest thirty-second, as a rule shows them: `12 7/8`, `−1/32`, `0`. */
export function inches(valueMm: number): string {
  const parts = Math.round((Math.abs(valueMm) / MM_PER_UNIT.in) * PARTS_OF_INCH)
  if (parts === 0) return '0'
  const [whole, left] = [Math.floor(parts / PARTS_OF_INCH), parts % PARTS_OF_INCH]
  const halvings = left === 0 ? 0 : Math.log2(left & -left)
  const fraction = left === 0 ? '' : `${left / 2 ** halvings}/${PARTS_OF_INCH / 2 ** halvings}`
  return `${valueMm < 0 ? '−' : ''}${[whole || '', fraction].filter(Boolean).join(' ')}`
}

/** Whole cents with their sign: `+3`, `−22`, `0`. */
export function signedCents(value: number): string {
  const rounded = Math.round(value)
  return rounded > 0 ? `+${rounded}` : withMinus(String(rounded === 0 ? 0 : rounded))
}

/** `+0.4` or `−2.4`, mm. */
export function signedMm(value: number): string {
  const text = tenths(value)
  return Number(text) === 0 ? '0.0' : value > 0 ? `+${text}` : withMinus(text)
}

/** `22 cents flat`, `1 cent sharp`, `in tune`: told by word, whatever the colour. */
export function sharpOrFlat(cents: number): string {
  const rounded = Math.round(cents)
  if (rounded === 0) return 'in tune'
  return `${count(Math.abs(rounded), 'cent')} ${rounded > 0 ? 'sharp' : 'flat'}`
}

export function count(n: number, thing: string): string {
  return `${n} ${thing}${n === 1 ? '' : 's'}`
}

/** `1, 2 and 3` */
export function listed(items: readonly (string | number)[]): string {
  return items.length < 2 ? items.join('') : `${items.slice(0, -1).join(', ')} and ${items.at(-1)}`
}

/** Half a tenth goes up, also where the last bit of a sum has fallen short of it: 551 / 4 is 137.8 on every string. */
function tenths(value: number): string {
  return (value + Math.sign(value) * 1e-9).toFixed(1)
}

function withMinus(text: string): string {
  return Number(text) === 0 ? text.replace('-', '') : text.replace('-', '−')
}
