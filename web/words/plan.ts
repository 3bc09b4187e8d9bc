import {
  familyOf,
  isPracticeId,
  patternWithId,
  type Effect,
  type ExerciseId,
  type FamilyId,
  type Finding,
  type LeftOutWhy,
  type Mended,
  type PlanReason,
  type PracticeId,
  type PracticePart,
} from '#core'
import { shortDay } from './dates'
import { GATE_NAMES } from './gates'
import { count, length, listed, sharpOrFlat } from './numbers'
import { patternName } from './patterns'
import { shown } from './shown'
import { answerName, setupName } from './setup-names'
import { fingerName } from './trade'
import { TOLD } from './verdict'

/** The tool’s exercises by their short names. */
const PRACTICE_NAMES: Readonly<Record<PracticeId, string>> = {
  shake_out: 'Shake out',
  half_the_pressure: 'Half the pressure',
  lift_from_rest: 'Lift from rest',
  thumb_taps: 'Thumb taps',
  thumb_circles: 'Thumb circles',
  thumb_off: 'Thumb off the neck',
  move_arm: 'Move the arm',
  hands_away: 'Hands away',
  find_elbow: 'Find the elbow',
  swing_elbow: 'Swing the elbow',
  tap_on_wood: 'Tap on wood',
  silent_pattern: 'Silent pattern',
  smaller_shape: 'Smaller shape',
  touch_two_and_three: '2 and 3 touch',
  drop_fourth: 'Drop 4',
  fourth_against_open: '4 against open',
  octave_one_four: 'Octave 1 and 4',
  lift_first: 'Lift 1 alone',
  lift_extended_first: 'Lift extended 1',
  two_then_extended_first: '2, then 1 back',
  roll_the_hand: 'Roll the hand',
  own_motion: 'One finger moves',
  open_and_first: 'Open and 1',
  come_home: 'Come home',
  one_finger: 'One finger',
  note_and_neighbour: 'Note and neighbour',
  slow_drops: 'Slow drops',
  stop_before_repair: 'Stop, then look',
  silent_slides: 'Silent slides',
  fade_tape: 'Fade the tape',
  long_notes: 'Long notes',
  slow_swings: 'Slow swings',
  slow_scale_hover: 'Hovering scale',
  finger_rounds: 'Finger rounds',
  scale_two_bows: 'Scale, two bows',
  tune_strings: 'Tune the strings',
  review_piece: 'An old piece',
}

/** What an exercise is called where room is short. */
export function practiceName(id: ExerciseId): string {
  return isPracticeId(id) ? PRACTICE_NAMES[id] : (shown.exercises.own(id)?.name ?? 'An exercise taken off')
}

export const PART_NAMES: Readonly<Record<PracticePart, string>> = {
  release: 'Free',
  hold: 'Hold',
  frame: 'Frame',
  aim: 'Aim',
  patterns: 'Patterns',
  review: 'Review',
}

/** What an exercise may be tried for, as a teacher chooses it. */
export const MENDED_NAMES: Readonly<Record<Mended, string>> = {
  whole_hand: 'The whole hand too far up or back',
  frame: 'A frame too narrow or too wide',
  finger: 'One finger sharp or flat',
  place: 'One note of a line off',
  creep: 'A hand that creeps',
  scatter: 'A finger that lands here and there',
  steps: 'Half and whole steps unclear',
  elbow: 'An elbow that does not swing',
  locked_thumb: 'A locked thumb',
  pinched: 'An extension pinched',
  dragged: 'A hand that goes back with 1',
  ear_repairs: 'Notes repaired by ear',
  wobble: 'A note that moves',
  dull: 'A finger that touches its neighbour string',
  vibrato: 'Vibrato above the note',
  without_tapes: 'A place missed without its tape',
}

/** What to stop at, beside pain. Common practice, no source (docs/trade.md § 8). */
const STOPS: Partial<Record<PracticeId, string>> = {
  find_elbow: 'Never force the elbow round.',
  swing_elbow: 'Never force the elbow round.',
  octave_one_four: 'Stop where the hand has to stretch.',
  drop_fourth: 'Stop when the hand begins to tire.',
  fourth_against_open: 'Stop when the hand begins to tire.',
  lift_from_rest: 'Stop pressing as soon as the finger is down.',
  lift_extended_first: 'Turn the forearm; never pull 1 back by force.',
  silent_slides: 'Stop if the thumb begins to squeeze.',
  slow_swings: 'Stop if the thumb begins to squeeze.',
}

export function stopSentence(id: ExerciseId): string {
  return (isPracticeId(id) ? STOPS[id] : shown.exercises.own(id)?.stop) ?? ''
}

/** After how long it should show; nothing where the trade does not say. */
export function weeksSentence(id: ExerciseId): string {
  const { weeks } = shown.exercises.of(id)
  return weeks ? `It needs ${weeks[0]} to ${weeks[1]} weeks.` : ''
}

/** What was found, in a few words: `4 was 27 cents flat`. */
function faultShort(finding: Finding): string {
  switch (finding.code) {
    case 'finger':
    case 'place':
      return `${finding.finger} was ${sharpOrFlat(finding.cents)}`
    case 'frame':
      return `the frame was ${length(Math.abs(finding.errorMm))} too ${finding.errorMm < 0 ? 'narrow' : 'wide'}`
    case 'whole_hand':
      return `the whole hand sat ${length(Math.abs(finding.offsetMm))} too far ${finding.offsetMm > 0 ? 'up' : 'back'}`
    case 'without_tapes':
      return `${finding.finger} was ${sharpOrFlat(finding.cents)} without its tape`
    case 'creep':
      return `the hand crept ${finding.offsetMm > 0 ? 'up' : 'back'} by ${length(Math.abs(finding.offsetMm))}`
    case 'scatter':
      return `a finger landed ${count(Math.round(finding.cents), 'cent')} from where it was before`
    default:
      return (TOLD[finding.code] ?? WORDS[finding.code] ?? finding.code).toLowerCase()
  }
}
const WORDS: Partial<Record<Finding['code'], string>> = {
  ear_repairs: 'notes repaired by ear',
  wobble: 'a note that moves',
  dull: 'a dull finger',
  vibrato: 'vibrato above the note',
}

/** Why something is planned, for a teacher and a parent to read. */
export function reasonSentence(reason: PlanReason, family: FamilyId): string {
  switch (reason.code) {
    case 'finding':
      return sentence(`${faultShort(reason.finding)} on ${shortDay(reason.on)}`)
    case 'setup':
      return sentence(
        `${setupName(reason.itemId)}: ${answerName(reason.itemId, reason.answer)} on ${shortDay(reason.on)}`,
      )
    case 'gate':
      return `Until the gate “${GATE_NAMES[reason.gate]}” stands open.`
    case 'pattern': {
      const of = familyOf(family)
      const pattern = patternWithId(of, reason.patternId)
      return pattern ? `A pattern being learned: ${patternName(of, pattern)}.` : 'A pattern being learned.'
    }
    case 'review':
      return `Held ${count(reason.times, 'time')} since ${faultShort(reason.finding)}: another look after ${count(reason.days, 'day')}.`
    case 'piece':
      return reason.finger === null
        ? `${reason.title}, easily.`
        : `${reason.title}, with an eye on the ${fingerName(reason.finger)}.`
    case 'asked':
      return 'Added by the teacher.'
  }
}

function sentence(text: string): string {
  return `${text.charAt(0).toUpperCase()}${text.slice(1)}.`
}

/** What is not in the plan, each reason said once: `Hands away, Finger rounds: one new thing at a time …` */
export function leftOutSentences(
  left: readonly { readonly exerciseId: ExerciseId; readonly why: LeftOutWhy }[],
): { readonly names: string; readonly why: string }[] {
  const byWhy = new Map<string, string[]>()
  for (const { exerciseId, why } of left) {
    const said = leftOutSentence(why)
    byWhy.set(said, [...(byWhy.get(said) ?? []), practiceName(exerciseId)])
  }
  return [...byWhy].map(([why, names]) => ({ names: listed(names), why }))
}

/** Why something is not in the plan. */
function leftOutSentence(why: LeftOutWhy): string {
  switch (why.code) {
    case 'pain':
      return 'a pain is marked: rest, and ask a doctor first.'
    case 'gate':
      return `waits for the gate “${GATE_NAMES[why.gate]}”. Until then: ${practiceName(why.until)}.`
    case 'age':
      return `asked from the age of ${why.fromAge}.`
    case 'minutes_of_age':
      return `no room: ${why.most} minutes a day are enough at this age.`
    case 'school':
      return 'goes against how this student is taught.'
    case 'family':
      return 'not for this instrument.'
    case 'one_new':
      return 'one new thing at a time: it waits for another week.'
    case 'enough':
      return 'enough for one week: it waits for another.'
    case 'no_minutes':
      return 'no minutes left for it.'
    case 'not_helped':
      return `practised since ${shortDay(why.since)}, and it is there still. In its place: ${practiceName(why.next)}.`
  }
}

/** What happened to a number while something was practised; never by what. */
export function effectSentence(effect: Effect, unit: (value: number) => string): string {
  if (effect.code === 'too_early')
    return `Too early to say: ${count(effect.have, 'check')} since, ${effect.need} are needed.`
  const { change, low, high, isFaster } = effect
  if (low < 0 && high > 0)
    return `No change can be told yet: from ${unit(-low)} nearer to ${unit(high)} further off.`
  const size = [Math.abs(low), Math.abs(high)].sort((a, b) => a - b) as [number, number]
  const way = change < 0 ? 'nearer' : 'further off'
  const faster = isFaster ? ' It went faster than before.' : ''
  return `${unit(Math.abs(change))} ${way} while it was practised (${unit(size[0])} to ${unit(size[1])}).${faster}`
}
