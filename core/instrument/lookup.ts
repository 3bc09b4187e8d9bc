import { midiNumber, transpose, type Note } from '../pitch'
import { FAMILIES } from './families'
import { plainFractions } from './length'
import type { Family, FamilyId, Finger, HandShape, HoldId, Size, TapeSchool } from './family'

export const FAMILY_IDS = Object.keys(FAMILIES) as FamilyId[]

export function familyOf(id: FamilyId): Family {
  return FAMILIES[id]
}

/** Why nothing is measured or laid on such an instrument: frets have given every note its place already. */
export function familyFault({ hasFrets }: Pick<Family, 'hasFrets'>): 'has_frets' | undefined {
  return hasFrets ? 'has_frets' : undefined
}

/** Families that are held so. */
export function familiesHeld(hold: HoldId): FamilyId[] {
  return FAMILY_IDS.filter((id) => FAMILIES[id].hold === hold)
}

export function sizeOf(family: Family, sizeId: string): Size | undefined {
  return family.sizes.find((size) => size.id === sizeId)
}

/** The size that a teacher writes as `1/2`, `½`, `1/2 size`, `15 1/2`, `15½″` or `full`; undefined where the family has none such. */
export function readSize(family: Family, text: string): Size | undefined {
  const plain = plainFractions(text)
    .toLowerCase()
    .replace(/\bfull\b/, '4/4')
    .replace(/\bhalf\b/, '1/2')
    .replace(/[\s-]*size\b|\s*(?:inches|inch|in|"|″)\s*$/g, '')
    .replace(/^\s*(\d+)\s+1\/2\s*$/, '$1.5')
    .replace(',', '.')
    .replace(/\s+/g, ' ')
    .trim()
  return sizeOf(family, plain) ?? sizeOf(family, `${plain} in`)
}

/** The family that a teacher writes as `violin`, `Violas`, `’cello` or `double bass`. */
export function readFamily(text: string): FamilyId | undefined {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/^['’]/, '')
    .replace(/[\s-]+/g, ' ')
  const isCalled = (name: string) =>
    [name, `${name}s`, `${name}es`].some((form) => form === plain || form.replace(' ', '') === plain)
  return FAMILY_IDS.find((id) => [FAMILIES[id].name, ...FAMILIES[id].otherNames].some(isCalled))
}

export function shapeOf(family: Family, shapeId: string): HandShape | undefined {
  return family.shapes.find((shape) => shape.id === shapeId)
}

export function schoolOf(family: Family, schoolId: string): TapeSchool | undefined {
  return family.schools.find((school) => school.id === schoolId)
}

/** The notes under the fingers of a shape on one open string, in finger order. */
export function notesOfShape(open: Note, shape: HandShape): { finger: Finger; note: Note }[] {
  return ([1, 2, 3, 4] as const).flatMap((finger) => {
    const interval = shape.fingers[finger]
    return interval ? [{ finger, note: transpose(open, interval) }] : []
  })
}

/** String length to expect of a size, mm; of a size nobody knows the full size's. From memory. */
export function typicalLengthMm(family: Family, sizeId: string): number {
  return sizeOf(family, sizeId)?.typicalLengthMm ?? family.board.stringLengthMm
}

export const FEWEST_STRINGS = 4
export const MOST_STRINGS = 6
/** Semitones from the lowest to the highest string tuning is good for: a slip of an octave goes beyond. Common practice, no source. */
const WIDEST_STEP = 12

export type TuningFault =
  | { readonly code: 'strings_few_or_many'; readonly found: number }
  | { readonly code: 'strings_out_of_order'; readonly stringIndex: number }
  | { readonly code: 'strings_far_apart'; readonly stringIndex: number }

/** What is wrong with open strings, lowest first, if anything; `stringIndex` is the higher string of the pair at fault. */
export function tuningFault(open: readonly Note[]): TuningFault | undefined {
  if (open.length < FEWEST_STRINGS || open.length > MOST_STRINGS)
    return { code: 'strings_few_or_many', found: open.length }
  for (let i = 1; i < open.length; i++) {
    const step = midiNumber(open[i]!) - midiNumber(open[i - 1]!)
    if (step <= 0) return { code: 'strings_out_of_order', stringIndex: i }
    if (step > WIDEST_STEP) return { code: 'strings_far_apart', stringIndex: i }
  }
  return undefined
}
