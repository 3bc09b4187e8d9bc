import { familiesHeld, type FamilyId } from '../instrument'

/** How much of an exercise is asked for. Common practice, no source (docs/trade.md § 8). */
export type Dose =
  | { readonly per: 'day'; readonly minutes: readonly [least: number, most: number] }
  | { readonly per: 'day' | 'string'; readonly times: number }
  | { readonly per: 'day'; readonly times: 'a few' }
  /** Several times over, so long each. */
  | { readonly per: 'time'; readonly seconds: number }

/** What a student does at home or in the lesson. */
export interface PracticeExercise {
  /** Whose hand it is for; everybody's without it. */
  readonly families?: readonly FamilyId[]
  /** Only where the trade has one: what is tried as long as it is comfortable is given no number. */
  readonly dose?: Dose
}

/** Work on tension, at the start of practice. */
const AT_START: Dose = { per: 'day', minutes: [5, 10] }
const HALF_A_MINUTE: Dose = { per: 'time', seconds: 30 }

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
  half_the_pressure: {},
  lift_from_rest: { dose: AT_START },
  thumb_taps: {},
  thumb_circles: {},
  thumb_off: {},
  move_arm: {},
  // How the instrument and the arm are held.
  hands_away: { families: ON_SHOULDER, dose: { per: 'day', minutes: [5, 5] } },
  find_elbow: { families: ON_SHOULDER },
  swing_elbow: {},
  // The frame.
  tap_on_wood: { dose: HALF_A_MINUTE },
  silent_pattern: { dose: HALF_A_MINUTE },
  smaller_shape: {},
  touch_two_and_three: {},
  drop_fourth: { families: ON_SHOULDER, dose: { per: 'day', times: 10 } },
  fourth_against_open: { families: ON_SHOULDER, dose: { per: 'day', times: 'a few' } },
  octave_one_four: {},
  lift_first: {},
  lift_extended_first: { families: AT_KNEES },
  two_then_extended_first: { families: AT_KNEES },
  roll_the_hand: { families: STANDING },
  // Where fingers come down.
  open_and_first: { dose: { per: 'string', times: 20 } },
  come_home: {},
  one_finger: {},
  note_and_neighbour: {},
  slow_drops: {},
  stop_before_repair: {},
  slow_scale_hover: {},
  silent_slides: {},
  fade_tape: {},
  // What sounds.
  long_notes: {},
  slow_swings: {},
  tune_strings: {},
} as const satisfies Record<string, PracticeExercise>

export type PracticeId = keyof typeof EXERCISES
export const PRACTICE: Readonly<Record<PracticeId, PracticeExercise>> = EXERCISES
export const PRACTICE_IDS = Object.keys(EXERCISES) as PracticeId[]

/** Whether a hand of this family has the exercise. */
export function isPracticedOn(id: PracticeId, familyId: FamilyId): boolean {
  return PRACTICE[id].families?.includes(familyId) ?? true
}
