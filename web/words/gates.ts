import type { BodyFitDoubt, BodyFitPart, GateId, Missing, Reach, SaidItem } from '#core'
import { shortDay } from './dates'
import { length, listed } from './numbers'
import { positionName } from './positions'
import { setupName } from './setup-names'
import { sizeName } from './trade'

export const GATE_NAMES: Record<GateId, string> = {
  fourth_finger: 'Fourth finger',
  shifting: 'Shifting',
  vibrato: 'Vibrato',
  tapes_off: 'Tapes off',
  next_size: 'Next size',
}

/** What is done until a gate stands open. Common practice, no source. */
export const UNTIL_THEN: Record<GateId, string> = {
  fourth_finger: '4 against the open string by ear, a few drops a day; comfortable after one to two weeks.',
  shifting: 'Silent slides along the string.',
  vibrato: 'Slides, and lifts from rest. It goes from the pitch downwards and back.',
  tapes_off: 'One tape fewer, then none.',
  next_size: 'Stay; never stretch 4 upwards.',
}

export const SAID_WORDS: Record<SaidItem, string> = {
  thumb_follows: 'The thumb moves with the hand',
  steady_bow: 'The bow is steady',
  easy_shift: 'First to third position and back, easily and in tune',
  swings_down: 'Swings from the pitch downwards and back',
  arm_reaches: 'The arm reaches its scroll softly bent',
}

/** A day ahead is only ever between two. */
function reachWords(within: Reach | undefined): string {
  if (!within) return ''
  const [from, to] = [shortDay(within.from), shortDay(within.to)]
  const when = from === to ? `about ${from}` : `between ${from} and ${to}`
  return `; if it goes on so, the fingers are within it ${when} (four in five)`
}

/** What is missing, in a few words. */
export function missingWords(missing: Missing): string {
  switch (missing.code) {
    case 'setup': {
      const name = setupName(missing.itemId)
      if (missing.answer === undefined) return `${name}: not looked at yet`
      return `${name}: ${missing.answer === 'nearly' ? 'nearly' : 'not yet'}`
    }
    case 'strings':
      return `${listed(missing.fingers)} within tolerance on ${missing.need} strings: ${missing.have === 0 ? 'none' : missing.have} so far${reachWords(missing.within)}`
    case 'position':
      return `${positionName(missing.position)}: not marked secure`
    case 'covered':
      return `as near with the tapes covered, twice, ${missing.apartDays === 7 ? 'a week' : `${missing.apartDays} days`} apart: ${missing.have === 0 ? 'not yet' : 'once so far'}`
    case 'span':
      return missing.haveMm === undefined
        ? `a span of ${length(missing.needMm)} for the ${sizeName(missing.sizeId)}: the hand is not measured`
        : `a span of ${length(missing.needMm)} for the ${sizeName(missing.sizeId)}: it has ${length(missing.haveMm)}`
    case 'said':
      return SAID_WORDS[missing.item].toLowerCase()
  }
}

interface FitField {
  readonly label: string
  readonly unit: 'mm' | '°' | 'of 5'
  readonly hint?: string
}

export const FIT_FIELDS: Record<BodyFitPart, FitField> = {
  chinRestMm: { label: 'Chin rest, height', unit: 'mm' },
  restNearMm: { label: 'Shoulder rest, end under the chin rest', unit: 'mm' },
  restFarMm: { label: 'Shoulder rest, outer end', unit: 'mm' },
  handsOff: { label: 'Stayed with both hands away', unit: 'of 5' },
  bodyAngle: { label: 'Angle, from straight ahead to the left', unit: '°' },
  thumbMm: { label: 'Thumb behind 1', unit: 'mm' },
  endpinMm: { label: 'Endpin that shows', unit: 'mm' },
  pegMm: { label: 'Lowest peg or machine above the ear', unit: 'mm' },
  seatMm: { label: 'Seat, height', unit: 'mm' },
  lean: { label: 'Leans from upright', unit: '°' },
}

export const FIT_DOUBTS: Record<BodyFitDoubt, string> = {
  steep_rest:
    'The rest tilts the instrument steeply: every finger will stand too upright. Lower its outer end.',
  falling_rest:
    'The rest drops steeply to its outer end: the instrument slides off the shoulder. Are both heights right?',
  leans_far: 'It leans so far that it lies on the player: is the angle from upright?',
  falls: 'It does not stay with both hands away: move or lower the rest, or look at the chin rest.',
  too_far_front: 'It points nearly straight ahead: the elbow hardly comes under. Turn it further left.',
  too_far_out: 'It points far to the side: the bow arm will suffer. Turn it further front.',
  pegs_off: 'The pegs are far from where they are looked for: set the endpin, and look again.',
}
