import {
  type AtlasCell,
  type Extension,
  type Family,
  type FingerStop,
  type NoPlacement,
  type Pattern,
  type Placement,
  positionAtSemitone,
  techniqueOf,
  type TouchAdvice,
  type Touching,
  touchingFingers,
} from '#core'
import { noteLabel } from './notes'
import { length, listed } from './numbers'
import { positionName } from './positions'

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
