import {
  FAMILY_IDS,
  familyOf,
  readScaleId,
  type FamilyId,
  type Finger,
  type FingerFormId,
  type HandShape,
  type Interval,
  type MarkSpec,
  type Ring,
  type StringMaterial,
  type TapeEventKind,
  type Whereabouts,
} from '#core'
import { length } from './numbers'
import { labelOfName, noteLabel } from './notes'

/** The trade's own words for what the core only names by id. */

/** At the start of a line: `Violin`. */
export const FAMILY_NAMES = Object.fromEntries(
  FAMILY_IDS.map((id) => [id, familyName(id).replace(/^./, (letter) => letter.toUpperCase())]),
) as Readonly<Record<FamilyId, string>>

/** In a sentence: `violin`. */
export function familyName(family: FamilyId): string {
  return familyOf(family).name
}

const FINGER_NAMES: Record<Finger, string> = { 1: 'first', 2: 'second', 3: 'third', 4: 'fourth' }
const SHORT_FINGER_NAMES: Record<Finger, string> = { 1: '1st', 2: '2nd', 3: '3rd', 4: '4th' }

/** `first finger` */
export function fingerName(finger: Finger): string {
  return `${FINGER_NAMES[finger]} finger`
}

/** `1st finger` */
export function shortFingerName(finger: Finger): string {
  return `${SHORT_FINGER_NAMES[finger]} finger`
}

const SHAPE_NAMES: Record<string, string> = {
  first: 'First position',
  first_low_2: 'First position, low 2',
  half: 'Half position',
  extended_back: 'First position, 1 extended back',
  extended_forward: 'First position, extended forward',
}

export function shapeName(shapeId: HandShape['id']): string {
  return SHAPE_NAMES[shapeId] ?? shapeId
}

const SCHOOL_NAMES: Record<string, string> = {
  none: 'None',
  first: '1',
  first_and_third: '1 and 3',
  first_and_fourth: '1 and 4',
  first_third_fourth: '1, 3, 4',
  half_and_first: 'Half and 1st',
  every: 'Every',
  by_hand: 'By hand',
}

export function schoolName(schoolId: string): string {
  return SCHOOL_NAMES[schoolId] ?? schoolId
}

/** `3/4` → `¾`, where a sign exists; sizes are read at a glance. */
export function sizeName(sizeId: string): string {
  const signs: Record<string, string> = {
    '7/8': '⅞',
    '3/4': '¾',
    '1/2': '½',
    '1/4': '¼',
    '1/8': '⅛',
    '1/10': '⅒',
  }
  return signs[sizeId] ?? sizeId
}

/** `violin ½` */
export function instrumentKind(family: FamilyId, sizeId: string): string {
  return `${familyName(family)} ${sizeName(sizeId)}`
}

export function systemName(systemId: string): string {
  if (systemId === 'fifths') return 'ring of open strings (pure fifths)'
  if (systemId === 'equal') return 'equal temperament'
  const scale = readScaleId(systemId)
  if (scale) return `${scale.name} on ${labelOfName(scale.keynote)}`
  return `just on ${labelOfName(systemId.slice('just:'.length))}`
}

/** The same in the few letters of a table's head. */
export function shortSystemName(systemId: string): string {
  if (systemId === 'fifths') return 'Ring'
  if (systemId === 'equal') return 'Equal'
  const scale = readScaleId(systemId)
  return scale
    ? `${scale.name} on ${labelOfName(scale.keynote)}`
    : `Just on ${labelOfName(systemId.slice('just:'.length))}`
}

const FORM_NAMES: Record<FingerFormId, string> = { low: 'low ', usual: '', high: 'high ', half: 'half ' }
const INTERVAL_NAMES: Record<string, string> = {
  '1.1': 'minor 2nd',
  '1.2': 'major 2nd',
  '2.3': 'minor 3rd',
  '2.4': 'major 3rd',
  '3.5': 'fourth',
  '3.6': 'augmented 4th',
  '4.6': 'diminished 5th',
  '4.7': 'fifth',
  '4.8': 'augmented 5th',
  '5.8': 'minor 6th',
  '5.9': 'major 6th',
  '6.10': 'minor 7th',
  '6.11': 'major 7th',
  '7.12': 'octave',
}

export function intervalName({ steps, semitones }: Interval): string {
  return INTERVAL_NAMES[`${steps}.${semitones}`] ?? `${semitones} semitones`
}

/** `1st finger`, `low 2nd finger`, `half 1st finger`; an interval where no finger has its name. */
export function markName({ finger, form, interval }: Pick<MarkSpec, 'finger' | 'form' | 'interval'>): string {
  return finger ? `${FORM_NAMES[form ?? 'usual']}${shortFingerName(finger)}` : intervalName(interval)
}

/** `1`, `low 2`, `octave`: the name where room is short. */
export function shortMarkName({
  finger,
  form,
  interval,
}: Pick<MarkSpec, 'finger' | 'form' | 'interval'>): string {
  return finger ? `${FORM_NAMES[form ?? 'usual']}${finger}` : intervalName(interval)
}

const RING_NAMES: Record<Ring['kind'], readonly [below: string, above: string]> = {
  unison: ['in unison', 'in unison'],
  octave: ['an octave above', 'an octave below'],
  twelfth: ['a twelfth above', 'a twelfth below'],
  double_octave: ['two octaves above', 'two octaves below'],
  double_octave_third: ['two octaves and a third above', 'two octaves and a third below'],
  double_octave_fifth: ['two octaves and a fifth above', 'two octaves and a fifth below'],
  triple_octave: ['three octaves above', 'three octaves below'],
  fifth: ['a fifth above', 'a fifth below'],
}

/** Where the open string lies that answers: `an octave above`. */
export function ringWords({ kind, isAbove }: Pick<Ring, 'kind' | 'isAbove'>): string {
  return RING_NAMES[kind][isAbove ? 1 : 0]
}

/** What a questioned find may really be, in a sentence. */
export function whereaboutsSentence(where: Whereabouts, placeMm: number): string {
  if (where.code === 'place_of_another') {
    const { mark, string } = where
    return `${length(placeMm)} is where the ${markName(mark)} lies: ${noteLabel(string.note)} on ${noteLabel(string.open, { octave: false })}.`
  }
  return `There it would sound ${Math.round(Math.abs(where.offCents))} cents ${where.offCents > 0 ? 'sharp' : 'flat'}.`
}

/** `D4` → `D`: a string is called by its letter, or as the studio calls it. */
export function withoutOctave(name: string): string {
  return labelOfName(name)
}

export const MATERIAL_NAMES: Record<StringMaterial, string> = {
  steel: 'Steel',
  synthetic: 'Synthetic core',
  gut: 'Gut',
}

export const EVENT_NAMES: Record<TapeEventKind, string> = {
  laid: 'Laid',
  checked: 'Checked',
  crept: 'Crept',
  moved: 'Moved',
  replaced: 'Replaced',
  removed: 'Came off',
  faded: 'Faded',
  trial: 'Tried without',
  bridge_changed: 'Bridge changed',
}

export const LEVEL_NAMES = { beginner: 'Beginner', growing: 'Intermediate', trained: 'Trained' } as const

export const WEEKDAYS = [
  'Sunday',
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
] as const

/** The twelve keynotes as players write them. */
export const KEYNOTES = ['C', 'C♯', 'D', 'E♭', 'E', 'F', 'F♯', 'G', 'A♭', 'A', 'B♭', 'B'] as const
