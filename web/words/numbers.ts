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
export function unitName(): 'mm' | 'cm' | 'in' {
  return shown.lengthUnit
}

/** A length in the studio’s unit, for a column that names the unit in its head. */
export function inUnit(valueMm: number): string {
  return length(valueMm).replace(/ (?:mm|cm|in)$/, '')
}

/** A length in the studio’s unit as a number, for what is drawn against an axis. */
export function toUnit(valueMm: number): number {
  return valueMm / MM_PER_UNIT[shown.lengthUnit]
}

/** How far something is off, with its sign and unit: `+0.4 mm`, `−0.016 in`. */
export function signedLength(valueMm: number): string {
  return `${signedInUnit(valueMm)} ${unitName()}`
}

/** What a piece is to be cut to, rounded up so that none is too short: `67 mm`, `6.7 cm`, `2 5/8 in`. */
export function cutLength(valueMm: number): string {
  const step = { mm: 1, cm: 1, in: MM_PER_UNIT.in / 16 }[shown.lengthUnit]
  return length(Math.ceil(valueMm / step) * step, 0)
}

/** A sentence whose lengths were written in whole mm, `4 to 6 mm`, in the studio’s unit. */
export function inStudioUnit(text: string): string {
  if (shown.lengthUnit === 'mm') return text
  return text.replace(
    /(?:(\d+(?:\.\d+)?) to )?(\d+(?:\.\d+)?) mm\b/g,
    (_, from: string | undefined, to: string) =>
      from === undefined ? length(Number(to)) : `${inUnit(Number(from))} to ${length(Number(to))}`,
  )
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

/** Decimals to which a difference is told: a mark of an inch rule is too coarse for how far a finger is off. */
const DECIMALS_OFF = { mm: 1, cm: 2, in: 3 } as const

/** How far something is off in the studio’s unit, for a column that names it: `+0.4`, `−2.4`; in inches `+0.016`. */
export function signedInUnit(valueMm: number): string {
  const text = (toUnit(valueMm) + Math.sign(valueMm) * 1e-9).toFixed(DECIMALS_OFF[shown.lengthUnit])
  if (Number(text) === 0) return text.replace('-', '')
  return valueMm > 0 ? `+${text}` : withMinus(text)
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
