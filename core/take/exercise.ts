import {
  centsOfNote,
  notesOfShape,
  placeOfNote,
  type Finger,
  type HandShape,
  type Stringing,
} from '../instrument'
import { meterCents, type Note } from '../pitch'

/** One note of an exercise: what is to be played, on which string and with which finger. Finger 0 is the open string. */
export interface ExpectedNote {
  /** From the lowest. */
  readonly stringIndex: number
  readonly finger: Finger | 0
  readonly note: Note
}

/** What an exercise is called: one hand shape on one string. */
export interface ExerciseName {
  readonly kind: 'shape'
  readonly shapeId: HandShape['id']
  readonly stringIndex: number
}

/** A line of expected notes. */
export interface Exercise {
  readonly name: ExerciseName
  readonly notes: readonly ExpectedNote[]
}

/** The exercise of a hand shape on one string: the open string, then each finger. */
export function shapeExercise(tuning: readonly Note[], stringIndex: number, shape: HandShape): Exercise {
  const open = tuning[stringIndex]
  if (!open) throw new RangeError(`there is no string ${stringIndex}`)
  return {
    name: { kind: 'shape', shapeId: shape.id, stringIndex },
    notes: [
      { stringIndex, finger: 0, note: open },
      ...notesOfShape(open, shape).map(({ finger, note }) => ({ stringIndex, finger, note })),
    ],
  }
}

/** An exercise as it is played: up, and down again. */
export function thereAndBack({ notes }: Pick<Exercise, 'notes'>): ExpectedNote[] {
  return [...notes, ...notes.slice(0, -1).reverse()]
}

/** Where one note of an exercise belongs on an instrument. */
export interface Target extends ExpectedNote {
  /** Above the open string. */
  readonly cents: number
  /** mm from the nut; 0 for the open string. */
  readonly placeMm: number
  /** What an equal-tempered meter shows when the note is right, in cents. */
  readonly meterCents: number
}

/** The place of every note of an exercise, in its order. */
export function targetsOf(stringing: Stringing, exercise: Exercise): Target[] {
  return exercise.notes.map((expected) => targetOf(stringing, expected))
}

export function targetOf(stringing: Stringing, expected: ExpectedNote): Target {
  const { stringIndex, finger, note } = expected
  if (finger === 0)
    return { ...expected, cents: 0, placeMm: 0, meterCents: meterCents(stringing.system, note, 'open') }
  return {
    ...expected,
    cents: centsOfNote(stringing, stringIndex, note),
    placeMm: placeOfNote(stringing, stringIndex, note),
    meterCents: meterCents(stringing.system, note),
  }
}

/** Pitch of a written note on its string, cents above A4. */
export function pitchOfExpected(stringing: Stringing, { stringIndex, finger, note }: ExpectedNote): number {
  const open = stringing.tuning[stringIndex]
  if (!open) throw new RangeError(`there is no string ${stringIndex}`)
  const above = finger === 0 ? 0 : centsOfNote(stringing, stringIndex, note)
  return stringing.system.openCentsAboveA4(open) + above
}
