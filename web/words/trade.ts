import type { FamilyId, Finger, HandShape } from '#core'

/** The trade's own words for what the core only names by id. */

export const FAMILY_NAMES: Record<FamilyId, string> = {
  violin: 'Violin',
  viola: 'Viola',
  cello: 'Cello',
  bass: 'Bass',
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
  return `${family} ${sizeName(sizeId)}`
}

export function systemName(systemId: string): string {
  if (systemId === 'fifths') return 'ring of open strings (pure fifths)'
  if (systemId === 'equal') return 'equal temperament'
  return `just on ${systemId.slice('just:'.length)}`
}

export const WEEKDAYS = [
  'Sunday',
  'Monday',
  'Tuesday',
  'Wednesday',
  'Thursday',
  'Friday',
  'Saturday',
] as const
