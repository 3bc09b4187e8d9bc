import { FAMILY_IDS, type FamilyId } from '../instrument'
import type { Schools, SetupItemId } from '../setup'
import type { Finding } from '../verdict'
import {
  isPracticeId,
  PRACTICE,
  PRACTICE_IDS,
  type ExerciseId,
  type OwnExerciseId,
  type PracticeExercise,
  type PracticePart,
} from './exercises'
import { exercisesFor, remediesFor } from './remedies'

/** What an exercise of a studio’s own may be tried for: everything that a hand is found with. */
export const MENDED = [
  'whole_hand',
  'frame',
  'finger',
  'place',
  'creep',
  'scatter',
  'steps',
  'elbow',
  'locked_thumb',
  'pinched',
  'dragged',
  'ear_repairs',
  'wobble',
  'dull',
  'vibrato',
  'without_tapes',
] as const satisfies readonly Finding['code'][]
export type Mended = (typeof MENDED)[number]

/** An exercise that a studio added, in its own words. */
export interface OwnExercise {
  readonly id: OwnExerciseId
  readonly name: string
  /** How it is done. */
  readonly how: string
  /** What to stop at, beside pain; empty where nothing is said. */
  readonly stop: string
  readonly part: PracticePart
  readonly families: readonly FamilyId[]
  /** A day. */
  readonly minutes: number
  /** Times a day; null where it is not counted. */
  readonly times: number | null
  readonly fromAge: number | null
  /** What it is tried for first. */
  readonly findings: readonly Mended[]
  readonly items: readonly SetupItemId[]
  /** As `parseWritten` reads it; empty of what is told. */
  readonly notes: string
  /** The family that the notes are written for. */
  readonly writtenFor: FamilyId
  /** False of one that is in old plans, and is given no more. */
  readonly isOffered: boolean
}

/** Every exercise that a studio has, by its id. */
export interface ExerciseBook {
  of(id: ExerciseId): PracticeExercise
  own(id: ExerciseId): OwnExercise | undefined
  /** The studio’s own, with those that are given no more. */
  readonly all: readonly OwnExercise[]
  /** Every exercise that can be given: the tool’s, then the studio’s. */
  readonly offered: readonly ExerciseId[]
  /** What is tried for a finding on an instrument of this family, the first first: what the studio wrote for it, then the usual. */
  forFinding(finding: Finding, familyId: FamilyId): readonly ExerciseId[]
  /** The same for an item of the setup that is not as it should be. */
  forItem(itemId: SetupItemId, familyId: FamilyId, schools: Schools): readonly ExerciseId[]
}

/** One that nobody knows any more: it stands in an old plan, and is given no more. */
const FORGOTTEN: PracticeExercise = { part: 'review', inLesson: true }
/** One look, whatever is asked for: a planner asks often. */
const KNOWN: Readonly<Partial<Record<ExerciseId, PracticeExercise>>> = Object.assign(
  Object.create(null) as object,
  PRACTICE,
)
const USUAL: ExerciseBook = {
  of: (id) => KNOWN[id] ?? FORGOTTEN,
  own: () => undefined,
  all: [],
  offered: PRACTICE_IDS.filter((id) => !PRACTICE[id].inLesson),
  forFinding: exercisesFor,
  forItem: (itemId, _, schools) => remediesFor(itemId, schools),
}

export function exerciseBook(own: readonly OwnExercise[] = []): ExerciseBook {
  if (own.length === 0) return USUAL
  const byId = new Map(own.map((one) => [one.id, { one, exercise: exerciseOfOwn(one) }] as const))
  // A teacher knows why she wrote it: it goes before what everybody does.
  const written = (familyId: FamilyId, isFor: (one: OwnExercise) => boolean) =>
    own
      .filter((one) => one.isOffered && isFor(one) && one.families.includes(familyId))
      .map(({ id }): ExerciseId => id)
  return {
    of: (id) => KNOWN[id] ?? byId.get(id as OwnExerciseId)?.exercise ?? FORGOTTEN,
    own: (id) => (isPracticeId(id) ? undefined : byId.get(id)?.one),
    all: own,
    offered: [...USUAL.offered, ...own.flatMap(({ id, isOffered }) => (isOffered ? [id] : []))],
    forFinding: (finding, familyId) => [
      ...written(familyId, ({ findings }) => (findings as readonly string[]).includes(finding.code)),
      ...exercisesFor(finding, familyId),
    ],
    forItem: (itemId, familyId, schools) => [
      ...written(familyId, ({ items }) => items.includes(itemId)),
      ...remediesFor(itemId, schools),
    ],
  }
}

function exerciseOfOwn({ part, families, minutes, fromAge }: OwnExercise): PracticeExercise {
  return {
    part,
    ...(families.length < FAMILY_IDS.length && { families }),
    dose: { per: 'day', minutes: [minutes, minutes] },
    ...(fromAge !== null && { fromAge }),
  }
}
