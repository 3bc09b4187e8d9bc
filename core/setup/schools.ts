import { familiesHeld, familyOf, FAMILY_IDS, type FamilyId, type TapeSchool } from '../instrument'

/**
 * What teachers do differently, each with good reason: docs/trade.md § 6. The first choice of a question is what a studio starts
 * with. Common practice, no source.
 */
export const SCHOOL_QUESTIONS = {
  tapes: { families: FAMILY_IDS, choices: ['two', 'none', 'one', 'every'] },
  waiting_fingers: { families: FAMILY_IDS, choices: ['hover', 'rest'] },
  thumb_violin: { families: familiesHeld('shoulder'), choices: ['opposite_1', 'behind_1', 'opposite_2'] },
  thumb_cello: { families: familiesHeld('knees'), choices: ['behind_2', 'between_1_and_2'] },
  thumb_bass: { families: familiesHeld('standing'), choices: ['behind_2', 'behind_1'] },
  contact: { families: familiesHeld('shoulder'), choices: ['base_of_1', 'tips_only'] },
  fingertip: { families: familiesHeld('shoulder'), choices: ['between', 'near_nail'] },
  fourth_finger: { families: familiesHeld('shoulder'), choices: ['rounded', 'long'] },
  fourth_on_neighbour: { families: familiesHeld('shoulder'), choices: ['while_new', 'never'] },
  bass_fingering: { families: familiesHeld('standing'), choices: ['one_two_four', 'four_finger'] },
  climbing: { families: familiesHeld('shoulder'), choices: ['early', 'stay'] },
  chromatic_scales: { families: familiesHeld('shoulder'), choices: ['slide', 'semitones'] },
} as const satisfies Record<
  string,
  { readonly families: readonly FamilyId[]; readonly choices: readonly [string, ...string[]] }
>

export type SchoolQuestion = keyof typeof SCHOOL_QUESTIONS
export type SchoolChoice<Q extends SchoolQuestion = SchoolQuestion> =
  (typeof SCHOOL_QUESTIONS)[Q]['choices'][number]

/** An answer to every question. The tuning system is one more, kept where places are reckoned. */
export type Schools = { readonly [Q in SchoolQuestion]: SchoolChoice<Q> }
/** How a studio teaches, or in what a student's teaching differs from the studio's. */
export type SomeSchools = { readonly [Q in SchoolQuestion]?: SchoolChoice<Q> | undefined }

export const SCHOOL_QUESTION_IDS = Object.keys(SCHOOL_QUESTIONS) as SchoolQuestion[]

export const USUAL_SCHOOLS = Object.fromEntries(
  SCHOOL_QUESTION_IDS.map((question) => [question, SCHOOL_QUESTIONS[question].choices[0]]),
) as unknown as Schools

/** The schools that hold: the student's where there are any, else the studio's, else what teachers mostly start with. */
export function schoolsOf(studio: SomeSchools = {}, student: SomeSchools = {}): Schools {
  const given = (schools: SomeSchools) =>
    Object.fromEntries(Object.entries(schools).filter(([, choice]) => choice !== undefined))
  return { ...USUAL_SCHOOLS, ...given(studio), ...given(student) }
}

/** The questions that a family's teachers disagree on, in the order of docs/trade.md § 6. */
export function questionsOf(family: FamilyId): SchoolQuestion[] {
  return SCHOOL_QUESTION_IDS.filter((question) =>
    (SCHOOL_QUESTIONS[question].families as readonly FamilyId[]).includes(family),
  )
}

const MOST_TAPES = { none: 0, one: 1, two: 2, every: Infinity } as const

/**
 * The family's own row of tapes for a number of them: the one its teachers mostly lay where it has so few, else the row with
 * the most that are allowed.
 */
export function tapeSchoolFor(familyId: FamilyId, tapes: SchoolChoice<'tapes'>): TapeSchool {
  const family = familyOf(familyId)
  const most = MOST_TAPES[tapes]
  const rows = family.schools.filter(({ marks }) => marks.length <= most)
  const fullest = Math.max(...rows.map(({ marks }) => marks.length))
  const fitting = rows.filter(({ marks }) => marks.length === fullest)
  return fitting.find(({ id }) => id === family.defaultSchoolId) ?? fitting[0]!
}
