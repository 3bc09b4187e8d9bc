import { isPracticeId, type ExerciseId, type Finding, type PracticeId } from '#core'
import { count } from './numbers'
import { shown } from './shown'

/** Whose practice it is, and what it is to mend. */
export interface PracticeContext {
  /** Tapes lie on this instrument, or would where the school lays some. */
  readonly hasTapes: boolean
  readonly finding?: Finding | undefined
}

type Words = string | ((about: PracticeContext) => string)

/** How each exercise is done, for a parent to read. Common practice, no source (docs/trade.md § 8). */
const HOW: Record<PracticeId, Words> = {
  shake_out: 'Shake out and bring the arm up again, at the start of practice.',
  half_the_pressure: 'Press until the note just speaks, then half of the rest.',
  lift_from_rest: 'Quick lift and drop from rest, then no pressing.',
  thumb_taps: 'Tap the thumb between notes on a piece learned months ago.',
  thumb_circles: 'Thumb circles on the neck, then play on.',
  thumb_off: 'Play a line with the thumb off the neck, limp; an even, quick trill is the test.',
  move_arm: 'Hold one pitch and move the arm about.',
  hands_away: 'Up, hold for a count of five, hand to the right shoulder and back.',
  find_elbow: 'Find the elbow: 1 to 4 in tune held low across the body, keep the hand, bring it up.',
  swing_elbow: 'Swing the elbow string by string and back, the hand still, one note each.',
  tap_on_wood:
    'Tap all four fingers on wood, on the instrument, on the string, rounded, the weight straight down.',
  silent_pattern: 'The pattern silently on one string, then plucked, then bowed.',
  smaller_shape: 'A smaller shape: place the fingers silently, then pluck, then bow.',
  touch_two_and_three: 'Touch 2 and 3 at the tips, silently, then plucked, then bowed.',
  drop_fourth: 'Drop 4 without the hand moving.',
  fourth_against_open: '4 against the next open string, slowly, listening for the ring.',
  octave_one_four: 'Octave of 1 and 4, slowly, only as long as it is comfortable.',
  lift_first: 'Lift and drop 1 alone, thumb and the other fingers still.',
  lift_extended_first: 'Lift and drop the extended 1, the thumb still.',
  two_then_extended_first: 'Place 2 and the thumb, then turn the forearm and drop 1 back.',
  own_motion: 'Each finger a motion of its own, lift, slide, pluck, while one of the others holds its note.',
  roll_the_hand: 'Roll the hand finger by finger, up and back, from the thinnest string down.',
  open_and_first: ({ hasTapes }) =>
    `Open and 1, aiming past ${hasTapes ? 'the middle of the tape' : 'the place'}.`,
  // A hand creeps over a line, and stands wrong from its first note.
  come_home: ({ hasTapes, finding }) =>
    `${finding?.code === 'creep' ? 'Stop between the notes' : 'Open and 1, stopping between notes'}; bring the hand back to ${hasTapes ? 'the first tape' : 'the place where 1 rings'} each time.`,
  one_finger: ({ finding }) =>
    `A few notes for ${finding?.code === 'finger' ? finding.finger : 'one finger'} alone, slow drops, aimed at the other side of the mistake.`,
  note_and_neighbour: 'The note before, this one and back, slowly; then in its line.',
  slow_drops: 'Slow controlled drops, guided all the way; few notes, one string.',
  stop_before_repair: 'Drop, stop before the repair, look where the finger lies, then listen.',
  finger_rounds: '1-2-1, then 1-2-3-2 and the like, in quarters, eighths and sixteenths, aiming each drop.',
  scale_two_bows: 'A one-octave scale up and down, two bows a note, the fingers kept down going up.',
  slow_scale_hover: 'A slow scale with every finger over its place, stopping between notes.',
  silent_slides: 'Silent slides along the string, thumb with the hand.',
  fade_tape: 'Fade the tape: shorter looks, then covered for a line, then for a piece.',
  long_notes: 'One long note after another, listening for the ring.',
  slow_swings: 'Leave vibrato for now: slow swings from the note downwards, first without the bow.',
  review_piece: 'An old, easy piece, with the attention on one finger.',
  tune_strings: 'Tune all strings, then read the open ones again.',
}

/** How an exercise is done on this instrument, in this school. */
export function practiceHow(id: ExerciseId, about: PracticeContext): string {
  if (!isPracticeId(id)) return shown.exercises.own(id)?.how ?? ''
  const words = HOW[id]
  return typeof words === 'function' ? words(about) : words
}

/** What is done, and how much of it. */
export function practised(id: ExerciseId, about: PracticeContext): string {
  return `${practiceHow(id, about)} ${doseSentence(id)}`.trimEnd()
}

/** How much of it: `5 to 10 minutes a day.` Nothing where the trade has no number. */
export function doseSentence(id: ExerciseId): string {
  const { dose } = shown.exercises.of(id)
  const own = shown.exercises.own(id)
  if (own?.times) return `${count(own.times, 'time')} a day, in ${count(own.minutes, 'minute')}.`
  if (!dose) return ''
  if (dose.per === 'time') return `${dose.seconds} seconds at a time.`
  if ('minutes' in dose) {
    const [least, most] = dose.minutes
    return `${least === most ? least : `${least} to ${most}`} minutes a day.`
  }
  if (dose.times === 'a few') return 'A few times a day.'
  return dose.per === 'string' ? `About ${dose.times} times on each string.` : `${dose.times} times a day.`
}
