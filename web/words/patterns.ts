import {
  dayOf,
  positionAtSemitone,
  techniqueOf,
  touchingFingers,
  type Alternative,
  type AlternativeId,
  type DoubleStopKind,
  type DrillFault,
  type DrillId,
  type Lock,
  type Note,
  type Extension,
  type Family,
  type Frame,
  type Placement,
  type AtlasCell,
  type HandFault,
  type HandFit,
  type FingerStop,
  type Key,
  type KeyFault,
  type MasteryState,
  type ModeId,
  type NoPlacement,
  type Pattern,
  type TouchAdvice,
  type Touching,
  type WhenFits,
  type Schools,
  type SpanDoubt,
} from '#core'
import { shortDay } from './dates'
import { count, inStudioUnit, length, listed } from './numbers'
import { fingerWords } from './fingers'
import { labelOfName, noteLabel } from './notes'
import { positionName } from './positions'

export const MODE_NAMES: Record<ModeId, string> = {
  major: 'major',
  natural_minor: 'natural minor',
  harmonic_minor: 'harmonic minor',
  melodic_minor: 'melodic minor',
  dorian: 'dorian',
  phrygian: 'phrygian',
  lydian: 'lydian',
  mixolydian: 'mixolydian',
  locrian: 'locrian',
  major_pentatonic: 'major pentatonic',
  minor_pentatonic: 'minor pentatonic',
  chromatic: 'chromatic',
}

/** `F♯ harmonic minor` */
export function keyName({ tonic, mode }: Key): string {
  return `${noteLabel(tonic, { octave: false })} ${MODE_NAMES[mode.id]}`
}

export function keyFaultSentence(fault: KeyFault): string {
  if (fault.code === 'key_mode')
    return `“${fault.text}” is no scale here: type one as in D major, A harmonic minor, E dorian.`
  return fault.text === ''
    ? 'Type a key, as in D major or F♯ harmonic minor.'
    : `“${fault.text}” is no key: begin with a letter from A to G, as in B♭ major.`
}

const STEP_NAMES = ['', 'H', 'W', 'A']

/** `W H W`: H a half step, W a whole one, A an augmented one. */
export function stepsName({ steps }: Pattern): string {
  return steps.map((step) => STEP_NAMES[step] ?? String(step)).join(' ')
}

/** By the fingers that touch: `2 and 3 touch`. On the cello and bass a half step is a finger's spacing, and is called so. */
export function patternName(family: Family, pattern: Pattern): string {
  if (pattern.steps.length === 0) return `${pattern.fingers.join('')} alone`
  const groups = touchingGroups(pattern)
  if (!techniqueOf(family.id).touches) {
    const halves = touchingFingers(pattern).map((pair) => pair.join('–'))
    return `${pattern.fingers.join(' ')}, ${halves.length > 0 ? `half step ${listed(halves)}` : 'no half step'}`
  }
  if (groups.length === 0) return 'no fingers touch'
  if (groups.length === 1 && groups[0]!.length === 4) return 'all fingers touch'
  return groups.length === 1
    ? `${listed(groups[0]!)} touch`
    : `${listed(groups.map((g) => g.join('–')))} touch`
}

/** Fingers that lie side by side without a gap, at least two together. */
function touchingGroups({ fingers, steps }: Pattern): number[][] {
  const groups: number[][] = [[fingers[0]!]]
  steps.forEach((step, i) => {
    if (step === 1) groups.at(-1)!.push(fingers[i + 1]!)
    else groups.push([fingers[i + 1]!])
  })
  return groups.filter((group) => group.length > 1)
}

export const SPREAD_NAMES: Record<Pattern['spread'], string> = {
  usual: '',
  stretched: 'stretched',
  narrowed: 'narrowed',
}

export const FRAME_NAMES: Record<string, string> = {
  fourth: 'Frame',
  closed: 'Closed',
  extended: 'Extended',
  one_two_four: '1-2-4',
  four_finger: 'Four fingers',
}

/** The same as the head of a number. */
export const FRAME_TITLES: Record<string, string> = {
  fourth: 'Frame 1 to 4',
  closed: 'Frame, closed',
  extended: 'Frame, extended',
  one_two_four: 'Frame 1 to 4',
  four_finger: 'Frame, four fingers',
}

const EXTENSION_SENTENCES: Record<Extension, string> = {
  none: '',
  back: '1 drops back with a turn of the forearm; thumb, 2, 3 and 4 stay.',
  forward: '1 stays; 2, 3, 4 and the thumb move up together.',
}

/** How the hand opens, or where a closed one lies that is not at its position's own place; nothing of all others. */
export function handSentence(family: Family, placement: Placement): string[] {
  if (placement.extension !== 'none') return [extensionSentence(placement.extension)]
  const elsewhere = lowerPlaceSentence(family, placement)
  return elsewhere === undefined ? [] : [elsewhere]
}

export function extensionSentence(extension: Extension): string {
  return EXTENSION_SENTENCES[extension]
}

/** Where a closed hand lies that is not at its position's own place; nothing where it is. */
export function lowerPlaceSentence(family: Family, { position, base }: Placement): string | undefined {
  const own = position.firstFingerSemitones.at(-1)!
  if (base === own || !techniqueOf(family.id).namesPlaces) return undefined
  const other = positionAtSemitone(family, base)
  if (other && other.id !== position.id) return `The hand lies in ${positionName(other)}.`
  return base < own
    ? `The hand lies in the lower ${positionName(position)}.`
    : `The hand lies a half step higher.`
}

const NO_HAND: Record<NoPlacement['reason'], string> = {
  open_string: 'The open string has this place: no hand here.',
  beyond_frame: 'Further apart than the hand holds: it must move between these notes.',
  no_note: 'The key has no note under these fingers.',
  off_board: 'Past the end of the fingerboard.',
}

export function noPlacementSentence({ reason, wanted }: NoPlacement): string {
  const notes = wanted.map((n) => noteLabel(n, { octave: false })).join(' ')
  return notes ? `${NO_HAND[reason]} (${notes})` : NO_HAND[reason]
}

const NO_HAND_SIGNS: Record<NoPlacement['reason'], string> = {
  open_string: 'open',
  beyond_frame: 'move',
  no_note: '–',
  off_board: 'off',
}

const NO_HAND_LEGENDS: Record<NoPlacement['reason'], string> = {
  open_string: 'the note of 1 is the open string itself, so no hand lies there',
  beyond_frame: 'further apart than the hand holds, it must move between the notes',
  no_note: 'the key has no note under these fingers',
  off_board: 'past the end of the fingerboard',
}

/** What a cell without a hand shows. */
export function noPlacementSign({ reason }: NoPlacement): string {
  return NO_HAND_SIGNS[reason]
}

/** The signs of cells without a hand, with what each means, as in `open: The open string has this place: no hand here.` */
export function noPlacementLegend(cells: readonly AtlasCell[]): string {
  const reasons = new Set(cells.flatMap((cell) => (cell.kind === 'none' ? [cell.reason] : [])))
  return [...reasons]
    .filter((reason) => NO_HAND_SIGNS[reason] !== '–')
    .map((reason) => `“${NO_HAND_SIGNS[reason]}”: ${NO_HAND_LEGENDS[reason]}.`)
    .join(' ')
}

/** Read aloud for a cell: `1 E, 2 F♯, 3 G, 4 A; 2 and 3 touch`. */
export function cellWords(family: Family, cell: AtlasCell): string {
  if (cell.kind === 'none') return NO_HAND[cell.reason]
  const stops = cell.stops
    .map((s) => `${s.finger} ${noteLabel(s.note, { octave: false })}${s.isInScale ? '' : ' rests'}`)
    .join(', ')
  return cell.pattern ? `${stops}; ${patternName(family, cell.pattern)}` : `${stops}; fingers slide`
}

/** `low 2`, `3` */
export function stopName({ finger, form }: FingerStop): string {
  return form === 'usual' ? String(finger) : `${form} ${finger}`
}

const ADVICE: Record<TouchAdvice, string> = {
  room: 'room between them',
  touch: 'they touch',
  roll: 'roll the fingertips apart',
  lift: 'lift one to let the other in',
  replace: 'replace one finger by the other',
}

/** What two fingertips a half step apart do: `17.2 mm: they touch`. */
export function touchSentence(pair: readonly [number, number], touching: Touching): string {
  const { stepMm, overlapMm, advice } = touching
  const over = overlapMm > 0 ? `, ${length(overlapMm)} too narrow` : ''
  return `${pair.join('–')}: ${length(stepMm)}${over}: ${ADVICE[advice]}.`
}

export const FIT_NAMES: Record<HandFit, string> = {
  comfortable: 'Comfortable',
  reach_back: 'Reach back with 1',
  thumb_or_pivot: 'Thumb forward, or pivot',
  too_big: 'Too big',
}

export const FIT_SIGNS: Record<HandFit, string> = {
  comfortable: '●',
  reach_back: '◐',
  thumb_or_pivot: '○',
  too_big: '✕',
}

const FIT_ADVICE: Record<HandFit, string> = {
  comfortable: 'The hand at rest spans the frame.',
  reach_back: 'Set the hand for 4 and reach back with 1: the stretch a hand bears best.',
  thumb_or_pivot:
    'Bring the thumb further forward, or let the hand pivot and return; do not hold the spread.',
  too_big: 'Take a smaller size.',
}

export function fitSentence(fit: HandFit): string {
  return FIT_ADVICE[fit]
}

export const STATE_NAMES: Record<MasteryState, string> = {
  not_met: 'Not met',
  learning: 'Learning',
  secure: 'Secure',
}

/** Told by shape as well as by colour. */
export const STATE_SIGNS: Record<MasteryState, string> = { not_met: '', learning: '◐', secure: '●' }

const MEASURE_NAMES = {
  span: 'A span from 1 to 4',
  fingerLength: 'A finger',
  fingertipWidth: 'A fingertip',
} as const

export function handFaultSentence(fault: HandFault): string {
  if (fault.code === 'reach_below_comfort')
    return `Spread, the hand reaches ${length(fault.reachedMm)}, less than the ${length(fault.comfortableMm)} at rest: measure both again, or swap them.`
  const [least, most] = fault.limitsMm
  const likely = fault.likely
    ? ` Were these ${fault.likely.unit === 'cm' ? 'centimetres' : 'inches'}? Then it is ${length(fault.likely.valueMm)}.`
    : ''
  return `${MEASURE_NAMES[fault.measure]} of ${length(fault.valueMm)} is no hand’s: ${inStudioUnit(`${least} to ${most} mm`)}.${likely}`
}

/** Why a span is measured once more. */
export function spanDoubtSentence({ code, lastMm, lastDay }: SpanDoubt): string {
  const last = `${length(lastMm)} on ${shortDay(dayOf(lastDay))}`
  return {
    shrunk: `It was ${last}, and a hand does not shrink. Measure once more.`,
    shot_up: `It was ${last}, and no hand grows so fast. Measure once more.`,
    alone: `It was ${last}, and this fits with none of the others. Measure once more.`,
  }[code]
}

const DRILL_NAMES: Record<DrillId, string> = {
  open_and_first: 'Open and 1',
  one_two_one: '1-2-1',
  one_two_three_two: '1-2-3-2',
  pattern: 'The pattern, up and down',
  bass_roll: 'Rolling the hand',
  up_from_open: 'Up from the open string and back',
  fourth_against_open: '4 against the open string',
  extended_first: 'Extended 1, lifted and dropped',
  octave_one_four: 'Octave with 1 and 4',
}

/** A drill; one that takes every finger of the frame by these: `Rolling 1-2-4`, or where 3 has a semitone of its own `Rolling 1-2-3-4`. */
export function drillName(id: DrillId, frame?: Frame): string {
  const fingers = frame && Object.keys(frame.offsets).join('-')
  if (fingers && id === 'bass_roll') return `Rolling ${fingers}`
  if (fingers && id === 'up_from_open') return `0-${fingers} and back`
  return DRILL_NAMES[id]
}

const DRILL_HOW: Record<DrillId, string> = {
  open_and_first: 'Across the strings both ways; hear the ring each time.',
  one_two_one: 'In quarters, eighths, sixteenths, aiming each drop; 1 stays down.',
  one_two_three_two: 'In quarters, eighths, sixteenths, aiming each drop',
  pattern: 'Silently first, then plucked, then bowed.',
  bass_roll: 'From the G string down, the whole hand rolling; thumb soft.',
  up_from_open: 'Name each note aloud.',
  fourth_against_open: '4 must match the open string: listen for the ring.',
  extended_first: 'The thumb stays still; turn the forearm, do not pinch.',
  octave_one_four: 'Slowly, and only if it is comfortable: stop at any strain.',
}

const DRILL_FAULTS: Record<DrillFault | 'no_hand', string> = {
  no_hand: 'The key has no hand on this string in this position: choose another string, position or key.',
  fingers_missing: 'This hand has not the fingers for it: choose another string, position or key.',
  one_note: 'The key has one note only under this hand: choose another string, position or key.',
  no_such_open_string:
    '4 is no open string’s note here: choose a string with one above it, and 4 on that note.',
  not_extended: '1 does not drop back here: choose a key with its flat, as E♭ major on the D string.',
  no_octave: '1 and 4 are no octave here: choose another string, position or key.',
}

export function drillFaultSentence(fault: DrillFault | 'no_hand'): string {
  return DRILL_FAULTS[fault]
}

/** What no hand does, named: the note, the finger and the string. */
export function lockFaultSentence(
  { note, lock }: { readonly note: string; readonly lock: Lock },
  tuning: readonly Note[],
): string {
  const open = lock.stringIndex === undefined ? undefined : tuning[lock.stringIndex]
  const what = [
    ...(lock.finger === undefined ? [] : [`with ${fingerWords(lock.finger)}`]),
    ...(open ? [`on the ${noteLabel(open, { octave: false })} string`] : []),
    ...(lock.harmonic ? ['as a harmonic'] : []),
    ...(lock.isShift === undefined ? [] : [lock.isShift ? 'with a shift' : 'without a shift']),
  ].join(' ')
  return `No hand plays note ${lock.index + 1}, ${labelOfName(note, { octave: true })}, ${what}: settle it otherwise, or take it back.`
}

export const DOUBLE_STOP_NAMES: Record<DoubleStopKind, string> = {
  thirds: 'Thirds',
  sixths: 'Sixths',
  octaves: 'Octaves',
  fourth_against_open: '4 with the open string',
}

export const ALTERNATIVE_NAMES: Record<AlternativeId, string> = {
  usual: 'Usual',
  no_open: 'No open strings',
  stay: 'Stay and stretch',
  start_first: 'Start on 1',
  start_second: 'Start on 2',
  semitones: 'One finger a semitone',
  closed: 'Closed hands',
  few_crossings: 'Fewer strings',
  shift_elsewhere: 'Shift elsewhere',
  higher: 'Higher up',
  one_string: 'On one string',
  other_fingers: 'Other fingers',
}

const ALTERNATIVE_WHY: Record<AlternativeId, string> = {
  usual: 'As it is mostly played.',
  no_open: 'Every note in the hand, for vibrato and one colour.',
  stay: 'Fewer shifts; 4 stretches.',
  start_first: 'One shape that serves every key.',
  start_second: 'One shape that serves every key, half a hand lower.',
  semitones: 'Every note articulate, no slide.',
  closed: 'No extension: a smaller hand shifts instead.',
  few_crossings: 'One colour; the left hand travels for the bow.',
  shift_elsewhere: 'The same strings, other places to shift.',
  higher: 'Above the first position wherever it can: to know the higher ones.',
  one_string: 'One string as far as it goes: one colour, and shifts to practise.',
  other_fingers: 'Another finger wherever there is one.',
}

/** Why one would choose it, with its shifts and crossings: `Fewer shifts; 4 stretches. 1 shift, 3 crossings.` */
export function alternativeSentence({ id, shifts, crossings }: Alternative): string {
  return `${ALTERNATIVE_WHY[id]} ${count(shifts, 'shift')}, ${count(crossings, 'crossing')} going up.`
}

/** How a drill is played, in the student’s school. */
export function drillHow(id: DrillId, { waiting_fingers }: Pick<Schools, 'waiting_fingers'>): string {
  if (id !== 'one_two_three_two') return DRILL_HOW[id]
  return `${DRILL_HOW[id]}; ${waiting_fingers === 'hover' ? 'fingers hover low' : 'fingers rest between and come back'}.`
}

/** When a size will probably fit, in a sentence; `dayOf` turns the core's day count into an ISO day. */
export function whenSentence(
  when: WhenFits,
  size: string,
  dayOf: (day: number) => string,
  today: number,
): string {
  switch (when.outcome) {
    case 'now':
      return `The ${size} fits now.`
    case 'not_growing':
      return `The hand does not grow measurably: no day for the ${size} can be told.`
    case 'too_early':
      return `Too early to name a day for the ${size}: the measurements leave the growth too open. Measure again in some months.`
    case 'far_off':
      return `The ${size} is more than three years off.`
    case 'on': {
      const earliest = when.earliestDay <= today ? 'now' : shortDay(dayOf(when.earliestDay))
      return `The ${size} will probably fit about ${shortDay(dayOf(when.day))} (four times in five between ${earliest} and ${shortDay(dayOf(when.latestDay))}).`
    }
  }
}
