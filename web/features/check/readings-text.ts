import { MAX_METER_CENTS, type Side } from '#core'
import { length } from '../../words/numbers'

/** How readings are taken: from a meter, by a ruler, or by eye. */
export const READ_BY = ['meter', 'ruler', 'eye'] as const
export type ReadBy = (typeof READ_BY)[number]

/** One reading as it was typed. */
export type Told = { readonly shownCents: number } | { readonly offMm: number } | { readonly side: Side }

export interface ReadText {
  readonly told: readonly Told[]
  /** What is wrong with the text, and what to do. */
  readonly fault: string | undefined
}

/** A map, since people type anything: an object has a `constructor`. */
const SIDE_OF: ReadonlyMap<string, Side> = new Map([
  ['b', 'behind'],
  ['behind', 'behind'],
  ['o', 'on'],
  ['on', 'on'],
  ['p', 'past'],
  ['past', 'past'],
])
const UNIT: Readonly<Record<ReadBy, string>> = { meter: 'c', ruler: 'mm', eye: '' }
const ASKS: Readonly<Record<ReadBy, string>> = {
  meter: 'type cents, as in −12',
  ruler: 'type mm, as in −2.5',
  eye: 'type b for behind, o for on, p for past',
}
/** Fits every instrument; the strings say more. */
const MOST_MM = 60

interface Asked {
  readonly by: ReadBy
  /** An open string is read off a meter, however the fingers are. */
  readonly isOpen?: boolean
  /** A half step of this string at its nut, mm. */
  readonly halfStepMm?: number
}

/** Several notes of one finger stand side by side: `-22 -20`, `2 1.5`, `b o b`. A number without a unit is what is asked for. */
export function parseReadings(text: string, { by, isOpen = false, halfStepMm = MOST_MM }: Asked): ReadText {
  const told: Told[] = []
  const asked = isOpen ? 'meter' : by
  for (const word of words(text)) {
    const one = parseWord(word, asked)
    const fault = one === undefined ? strange(word, asked) : faultOf(one, isOpen, halfStepMm)
    if (one === undefined || fault !== undefined) return { told: [], fault }
    told.push(one)
  }
  return { told, fault: undefined }
}

/** The same readings with their units, so that they stay what they are when another way of reading is chosen. */
export function withUnits(text: string, by: ReadBy): string {
  return words(text)
    .map((word) => (/\d$/.test(word) ? word + UNIT[by] : word))
    .join(' ')
}

function words(text: string): string[] {
  return text.replaceAll('−', '-').replaceAll(',', '.').split(/\s+/).filter(Boolean).flatMap(letters)
}

/** `bbo` is three words. */
function letters(word: string): string[] {
  return /^[bop]{2,}$/i.test(word) ? [...word] : [word]
}

function parseWord(word: string, by: ReadBy): Told | undefined {
  const side = SIDE_OF.get(word.toLowerCase())
  if (side) return { side }
  const match = /^([+-]?\d+(?:\.\d+)?)(c|mm)?$/i.exec(word)
  if (!match) return undefined
  const unit = match[2]?.toLowerCase() ?? UNIT[by]
  if (unit === 'c') return { shownCents: Number(match[1]) }
  return unit === 'mm' ? { offMm: Number(match[1]) } : undefined
}

function faultOf(told: Told, isOpen: boolean, halfStepMm: number): string | undefined {
  if ('shownCents' in told) {
    const cents = Math.abs(told.shownCents)
    if (cents <= MAX_METER_CENTS) return undefined
    return `${cents} cents is another note: type −${MAX_METER_CENTS} to ${MAX_METER_CENTS}.`
  }
  if (isOpen) return 'An open string has no place: type what the meter shows, in cents.'
  if (!('offMm' in told) || Math.abs(told.offMm) < halfStepMm) return undefined
  return `${length(Math.abs(told.offMm))} is another note: a half step is ${length(halfStepMm)} there.`
}

function strange(word: string, by: ReadBy): string {
  const what = by === 'eye' ? 'says nothing' : 'is no number'
  return `“${word.slice(0, 20)}” ${what}: ${ASKS[by]}.`
}
