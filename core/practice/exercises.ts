import { familiesHeld, type FamilyId } from '../instrument'
import type { GateId, SomeSchools } from '../setup'

/** How much of an exercise is asked for. Common practice, no source (docs/trade.md § 8). */
export type Dose =
  | { readonly per: 'day'; readonly minutes: readonly [least: number, most: number] }
  | { readonly per: 'day' | 'string'; readonly times: number }
  | { readonly per: 'day'; readonly times: 'a few' }
  /** Several times over, so long each. */
  | { readonly per: 'time'; readonly seconds: number }

/**
 * Where an exercise stands in a day’s practice: tension goes first, then how things are held, the frame, where fingers come down,
 * patterns, and an old piece at the end. Common practice, no source (docs/trade.md § 8).
 */
export const PRACTICE_PARTS = ['release', 'hold', 'frame', 'aim', 'patterns', 'review'] as const
export type PracticePart = (typeof PRACTICE_PARTS)[number]

/** What a student does at home or in the lesson. */
export interface PracticeExercise {
  readonly part: PracticePart
  /** Whose hand it is for; everybody's without it. */
  readonly families?: readonly FamilyId[]
  /** Only where the trade has one: what is tried as long as it is comfortable is given no number. */
  readonly dose?: Dose
  /** Nobody younger is asked: it wants an ear or a thumb that small children do not yet have. Common practice, no source. */
  readonly fromAge?: number
  /** Only once this gate stands open; until then the other. */
  readonly needs?: { readonly gate: GateId; readonly until: PracticeId }
  /** What goes against it: who teaches so is not given it. */
  readonly against?: SomeSchools
  /** After so many weeks it should show. Only where the trade says so. */
  readonly weeks?: readonly [least: number, most: number]
  /** Done in the lesson, and nothing for a sheet at home. */
  readonly inLesson?: true
}

/** Work on tension, at the start of practice. */
const AT_START: Dose = { per: 'day', minutes: [5, 10] }
const HALF_A_MINUTE: Dose = { per: 'time', seconds: 30 }
/** A fourth finger is comfortable after so long (docs/trade.md § 8). */
const FOURTH_WEEKS = [1, 2] as const

const ON_SHOULDER = familiesHeld('shoulder')
const AT_KNEES = familiesHeld('knees')
const STANDING = familiesHeld('standing')

/**
 * Every exercise that is advised, each once: under a verdict, where a setup stops, and wherever practice is planned. What mends what
 * is in {@link exercisesFor} and {@link remediesFor}; the words are the page's. Common practice, no source (docs/trade.md § 8).
 */
const EXERCISES = {
  shake_out: { part: 'release', dose: AT_START },
  half_the_pressure: { part: 'release', fromAge: 7 },
  lift_from_rest: { part: 'release', dose: AT_START },
  thumb_taps: { part: 'release' },
  thumb_circles: { part: 'release' },
  thumb_off: { part: 'release', fromAge: 7 },
  move_arm: { part: 'release' },
  hands_away: { part: 'hold', families: ON_SHOULDER, dose: { per: 'day', minutes: [5, 5] } },
  find_elbow: { part: 'hold', families: ON_SHOULDER },
  swing_elbow: { part: 'hold' },
  tap_on_wood: { part: 'frame', dose: HALF_A_MINUTE },
  silent_pattern: { part: 'frame', dose: HALF_A_MINUTE },
  smaller_shape: { part: 'frame' },
  touch_two_and_three: { part: 'frame' },
  drop_fourth: {
    part: 'frame',
    families: ON_SHOULDER,
    dose: { per: 'day', times: 10 },
    weeks: FOURTH_WEEKS,
  },
  fourth_against_open: {
    part: 'frame',
    families: ON_SHOULDER,
    dose: { per: 'day', times: 'a few' },
    weeks: FOURTH_WEEKS,
  },
  octave_one_four: {
    part: 'frame',
    fromAge: 8,
    needs: { gate: 'fourth_finger', until: 'fourth_against_open' },
  },
  lift_first: { part: 'frame' },
  lift_extended_first: { part: 'frame', families: AT_KNEES },
  two_then_extended_first: { part: 'frame', families: AT_KNEES },
  roll_the_hand: { part: 'frame', families: STANDING },
  own_motion: { part: 'frame' },
  open_and_first: { part: 'aim', dose: { per: 'string', times: 20 } },
  come_home: { part: 'aim' },
  one_finger: { part: 'aim' },
  note_and_neighbour: { part: 'aim' },
  slow_drops: { part: 'aim' },
  stop_before_repair: { part: 'aim', fromAge: 8 },
  silent_slides: { part: 'aim' },
  fade_tape: { part: 'aim' },
  long_notes: { part: 'aim' },
  slow_swings: { part: 'aim', needs: { gate: 'vibrato', until: 'silent_slides' } },
  slow_scale_hover: { part: 'patterns', against: { waiting_fingers: 'rest' } },
  finger_rounds: { part: 'patterns' },
  scale_two_bows: { part: 'patterns', against: { waiting_fingers: 'rest' } },
  tune_strings: { part: 'release', inLesson: true },
  review_piece: { part: 'review' },
} as const satisfies Record<string, Omit<PracticeExercise, 'needs'> & { needs?: object }>

export type PracticeId = keyof typeof EXERCISES
/** An exercise of a studio’s own. */
export type OwnExerciseId = `own-${string}`
export type ExerciseId = PracticeId | OwnExerciseId
export const PRACTICE: Readonly<Record<PracticeId, PracticeExercise>> = EXERCISES
export const PRACTICE_IDS = Object.keys(EXERCISES) as PracticeId[]
export const isPracticeId = (id: ExerciseId): id is PracticeId => Object.hasOwn(EXERCISES, id)

/** Whether a hand of this family has the exercise. */
export function isPracticedOn({ families }: PracticeExercise, familyId: FamilyId): boolean {
  return families?.includes(familyId) ?? true
}

/** What an exercise without a dose takes of a day’s plan, minutes: one thing, and short. Common practice, no source. */
const SHORT_MINUTES = 2
/** An old piece is played through, with its attention on one finger. Common practice, no source. */
const PIECE_MINUTES = 5
/** What is done by the half minute is done this often. Common practice, no source. */
const ROUNDS_OF_HALF_A_MINUTE = 4
/** Twenty of open and 1, in quarters at 60, on one string: 40 s. Derived. */
const MINUTES_A_STRING = 1
/** A few drops, or ten. Common practice, no source. */
const MINUTES_OF_DROPS = 1

/** Minutes that a day’s plan gives an exercise: its dose, at the least of it. */
export function minutesOf({ part, dose }: PracticeExercise, strings: number): number {
  if (part === 'review') return PIECE_MINUTES
  if (!dose) return SHORT_MINUTES
  if (dose.per === 'time') return (ROUNDS_OF_HALF_A_MINUTE * dose.seconds) / 60
  if ('minutes' in dose) return dose.minutes[0]
  return dose.per === 'string' ? MINUTES_A_STRING * strings : MINUTES_OF_DROPS
}

/** Short sessions for children: so many minutes a day for each year of age, up to an age at which they say themselves. Common practice, no source. */
const MINUTES_A_YEAR = 4
const GROWN_FROM = 13

/** The most minutes a day that a plan asks of somebody; of the grown, and where no age is known, what is wished. */
export function mostMinutes(age: number | undefined): number {
  return age === undefined || age >= GROWN_FROM ? Infinity : MINUTES_A_YEAR * age
}
