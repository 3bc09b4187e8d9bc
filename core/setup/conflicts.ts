import type { HandFit } from '../frame'
import type { FamilyId } from '../instrument'
import { questionsOf, type SchoolQuestion, type Schools } from './schools'

/** What is known of the hand and its instrument when schools are weighed against each other. */
export interface ConflictFacts {
  /** How the hand meets the frame in first position; undefined where either was never measured. */
  readonly fit?: HandFit | undefined
  /** How it meets the four-finger frame of a bass. */
  readonly fourFingerFit?: HandFit | undefined
  /** Tapes that the student’s own row has, where it differs from the school’s. */
  readonly tapeCount?: number | undefined
  readonly isTunedByRing?: boolean | undefined
}

export type ConflictCode =
  /** The hand is to hover over a frame that it does not span. */
  | 'hover_beyond_span'
  /** A tape for every finger, and a hand that rests and comes back. */
  | 'every_tape_with_rest'
  /** The base of 1 lies on the neck, and 1 is to reach back from it. */
  | 'contact_with_reach_back'
  /** All fingers upright on the nail’s edge, the fourth long and flat. */
  | 'upright_with_long_fourth'
  /** 4 lies on the string that is to ring. */
  | 'neighbour_with_ring'
  /** Four fingers on a bass for a hand that does not span them. */
  | 'four_fingers_beyond_span'

export interface SchoolConflict {
  readonly code: ConflictCode
  /** The settings that stand against each other. */
  readonly between: readonly SchoolQuestion[]
}

type Rule = SchoolConflict & { readonly holds: (schools: Schools, facts: ConflictFacts) => boolean }

const NOT_SPANNED: readonly (HandFit | undefined)[] = ['thumb_or_pivot', 'too_big']

/** Common practice, no source. */
const RULES: readonly Rule[] = [
  {
    code: 'hover_beyond_span',
    between: ['waiting_fingers', 'tapes'],
    holds: ({ waiting_fingers }, { fit }) => waiting_fingers === 'hover' && NOT_SPANNED.includes(fit),
  },
  {
    code: 'every_tape_with_rest',
    between: ['tapes', 'waiting_fingers'],
    holds: ({ tapes, waiting_fingers }, { tapeCount }) =>
      waiting_fingers === 'rest' && (tapeCount === undefined ? tapes === 'every' : tapeCount > 2),
  },
  {
    code: 'contact_with_reach_back',
    between: ['thumb_violin', 'contact'],
    holds: ({ thumb_violin, contact }) => thumb_violin === 'opposite_2' && contact === 'base_of_1',
  },
  {
    code: 'upright_with_long_fourth',
    between: ['fingertip', 'fourth_finger'],
    holds: ({ fingertip, fourth_finger }) => fingertip === 'near_nail' && fourth_finger === 'long',
  },
  {
    code: 'neighbour_with_ring',
    between: ['fourth_on_neighbour'],
    holds: ({ fourth_on_neighbour, fourth_finger }, { isTunedByRing = false }) =>
      isTunedByRing && fourth_on_neighbour === 'while_new' && fourth_finger === 'long',
  },
  {
    code: 'four_fingers_beyond_span',
    between: ['bass_fingering'],
    holds: ({ bass_fingering }, { fourFingerFit }) =>
      bass_fingering === 'four_finger' && NOT_SPANNED.includes(fourFingerFit),
  },
]

/** Which of a family’s settings stand against each other, or against the hand. */
export function schoolConflicts(
  family: FamilyId,
  schools: Schools,
  facts: ConflictFacts = {},
): SchoolConflict[] {
  const asked = questionsOf(family)
  return RULES.filter(
    ({ between, holds }) => between.every((question) => asked.includes(question)) && holds(schools, facts),
  ).map(({ code, between }) => ({ code, between }))
}
