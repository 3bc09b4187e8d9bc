import { familiesHeld, type FamilyId } from '../instrument'
import type { DrillId } from '../technique'

/** How much of an exercise is asked for. Common practice, no source (docs/trade.md § 8). */
export type Dose =
  /** A day. */
  | { readonly per: 'day'; readonly minutes: readonly [least: number, most: number] }
  /** A few times over, so long each. */
  | { readonly per: 'time'; readonly minutes: number }
  /** Repetitions a day. */
  | { readonly per: 'day'; readonly times: number }

/** What a student does at home or in the lesson. */
export interface PracticeExercise {
  /** Whose hand it is for; everybody's without it. */
  readonly families?: readonly FamilyId[]
  /** Once and done, where there is none: strings that are tuned. */
  readonly dose?: Dose
  /** The drill that it plays, where it has notes; else it is told. */
  readonly drillId?: DrillId
}

const A_DAY: Dose = { per: 'day', minutes: [5, 5] }
/** Work on tension, at the start of practice. */
const AT_START: Dose = { per: 'day', minutes: [5, 10] }
const HALF_A_MINUTE: Dose = { per: 'time', minutes: 0.5 }
const times = (count: number): Dose => ({ per: 'day', times: count })

const ON_SHOULDER = familiesHeld('shoulder')
const AT_KNEES = familiesHeld('knees')
const STANDING = familiesHeld('standing')

/**
 * Every exercise that is advised, each once: under a verdict, where a setup stops, and wherever practice is planned. What mends what
 * is in {@link exercisesFor} and {@link remediesFor}; the words are the page's. Common practice, no source (docs/trade.md § 8).
 */
const EXERCISES = {
  // Tension and the thumb.
  shake_out: { dose: AT_START },
  half_the_pressure: { dose: A_DAY },
  lift_from_rest: { dose: AT_START },
  thumb_taps: { dose: A_DAY },
  thumb_circles: { dose: times(10) },
  thumb_off: { dose: A_DAY },
  move_arm: { dose: A_DAY },
  // How the instrument and the arm are held.
  hands_away: { families: ON_SHOULDER, dose: A_DAY },
  find_elbow: { families: ON_SHOULDER, dose: A_DAY },
  swing_elbow: { dose: times(10) },
  // The frame.
  tap_on_wood: { dose: HALF_A_MINUTE },
  silent_pattern: { dose: HALF_A_MINUTE, drillId: 'pattern' },
  smaller_shape: { dose: A_DAY, drillId: 'pattern' },
  touch_two_and_three: { dose: A_DAY },
  drop_fourth: { families: ON_SHOULDER, dose: times(10) },
  fourth_against_open: { families: ON_SHOULDER, dose: times(5), drillId: 'fourth_against_open' },
  octave_one_four: { dose: times(5), drillId: 'octave_one_four' },
  lift_first: { dose: times(10), drillId: 'open_and_first' },
  lift_extended_first: { families: AT_KNEES, dose: times(10), drillId: 'extended_first' },
  two_then_extended_first: { families: AT_KNEES, dose: times(10), drillId: 'extended_first' },
  roll_the_hand: { families: STANDING, dose: A_DAY, drillId: 'bass_roll' },
  // Where fingers come down.
  open_and_first: { dose: times(20), drillId: 'open_and_first' },
  come_home: { dose: A_DAY, drillId: 'open_and_first' },
  one_finger: { dose: times(10) },
  note_and_neighbour: { dose: times(10) },
  slow_drops: { dose: A_DAY, drillId: 'one_two_one' },
  stop_before_repair: { dose: A_DAY, drillId: 'pattern' },
  slow_scale_hover: { dose: A_DAY },
  silent_slides: { dose: A_DAY },
  fade_tape: { dose: A_DAY },
  // What sounds.
  long_notes: { dose: A_DAY },
  slow_swings: { dose: A_DAY },
  tune_strings: {},
} as const satisfies Record<string, PracticeExercise>

export type PracticeId = keyof typeof EXERCISES
export const PRACTICE: Readonly<Record<PracticeId, PracticeExercise>> = EXERCISES
export const PRACTICE_IDS = Object.keys(EXERCISES) as PracticeId[]

/** Whether a hand of this family has the exercise. */
export function isPracticedOn(id: PracticeId, familyId: FamilyId): boolean {
  return PRACTICE[id].families?.includes(familyId) ?? true
}
