import { exerciseOf } from '../exercise'
import { familyOf, type FamilyId } from '../instrument'
import { placementContext } from '../pattern'
import { noteName, type Note } from '../pitch'
import type { GateId } from '../setup'
import type { ExerciseName, ExpectedNote } from '../take'
import type { Finding } from '../verdict'
import { isPracticeId, type ExerciseId, type PracticeId } from './exercises'
import { exerciseBook, type OwnExercise } from './own'
import { writtenFor } from './written'

/** Whose exercise it is: the hand, its strings, and what it is to mend. */
export interface NotesFor {
  readonly familyId: FamilyId
  /** Open strings, lowest first. */
  readonly tuning: readonly Note[]
  readonly finding?: Finding | undefined
  /** What the studio added of its own. */
  readonly own?: readonly OwnExercise[]
}

/** The second string from the lowest: neither the furthest for the elbow nor the last one. Common practice, no source. */
const USUAL_STRING = 1
const FIRST_POSITION = 'first'

/**
 * The notes of an exercise for this hand, by the exercise that they are; undefined of what is told and not written: taps, circles, lifts.
 * On the string of what was found, the lowest for an elbow, else the second.
 */
export function practiceNotes(
  id: ExerciseId,
  about: NotesFor,
): { readonly name: ExerciseName; readonly notes: readonly ExpectedNote[] } | undefined {
  const context = placementContext(familyOf(about.familyId), about.tuning)
  if (!isPracticeId(id)) {
    const own = exerciseBook(about.own).own(id)
    const [lowest] = own ? familyOf(own.writtenFor).tuning : []
    const notes = own && lowest && writtenFor(context, own.notes, lowest, own.writtenFor)
    return notes && { name: { kind: 'free' }, notes }
  }
  for (const name of namesFor(id, about)) {
    const made = exerciseOf(context, name)
    if (made.ok && made.exercise.notes.length > 0) return { name, notes: made.exercise.notes }
  }
  return undefined
}

/** What the notes of a studio’s exercise ask of a hand of this family: a fourth finger, or a hand that shifts. */
export function gatesAsked(own: OwnExercise, familyId: FamilyId): GateId[] {
  const { tuning } = familyOf(familyId)
  const notes = practiceNotes(own.id, { familyId, tuning, own: [own] })?.notes ?? []
  const isFourth = notes.some(({ finger }) => finger === 4)
  const isShifted = notes.some(({ positionId }) => positionId !== null && positionId !== FIRST_POSITION)
  return [...(isFourth ? (['fourth_finger'] as const) : []), ...(isShifted ? (['shifting'] as const) : [])]
}

/** What it may be, the first that the strings have. */
function namesFor(id: PracticeId, about: NotesFor): ExerciseName[] {
  const stringIndex = stringOf(about)
  const open = about.tuning[stringIndex]!
  const keyId = `${noteName(open, { octave: false })}:major`
  const others = about.tuning.map((_, i) => i)
  const shape = { kind: 'shape', shapeId: familyOf(about.familyId).defaultShapeId, stringIndex } as const
  const drill = (drillId: string): ExerciseName => ({
    kind: 'drill',
    drillId,
    keyId,
    stringIndex,
    positionId: FIRST_POSITION,
  })
  switch (id) {
    case 'open_and_first':
    case 'come_home':
      return [drill('open_and_first')]
    case 'finger_rounds':
      return [drill('one_two_three_two'), drill('one_two_one')]
    case 'lift_extended_first':
      return [drill('extended_first')]
    case 'roll_the_hand':
      return [drill('bass_roll')]
    case 'silent_pattern':
    case 'smaller_shape':
    case 'slow_drops':
    case 'stop_before_repair':
    case 'find_elbow':
      return [shape]
    case 'fourth_against_open':
      return [stringIndex, ...others].map((on) => ({ kind: 'fourth', stringIndex: on }))
    case 'octave_one_four':
      return [stringIndex, ...others].map((on) => ({ kind: 'octave', stringIndex: on }))
    case 'slow_scale_hover':
    case 'scale_two_bows':
      return [{ kind: 'scale', keyId, octaves: 1, openStrings: 'prefer' }]
    default:
      return []
  }
}

function stringOf({ tuning, finding }: NotesFor): number {
  if (finding?.code === 'elbow') return 0
  const named =
    finding && 'string' in finding ? tuning.findIndex((open) => noteName(open) === finding.string) : -1
  return named >= 0 ? named : Math.min(USUAL_STRING, tuning.length - 1)
}
