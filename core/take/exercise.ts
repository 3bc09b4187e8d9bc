import {
  centsOfNote,
  notesOfShape,
  placeOfNote,
  type Digit,
  type HandShape,
  type Stringing,
} from '../instrument'
import { meterCents, midiNumber, type Note } from '../pitch'

/** One note of an exercise: what is to be played, on which string and with which finger. Finger 0 is the open string. */
export interface ExpectedNote {
  /** From the lowest. */
  readonly stringIndex: number
  readonly finger: Digit
  readonly note: Note
  /** Where the hand stands: id of one of the family’s positions. Null of an open string, and above the last position. */
  readonly positionId: string | null
}

/** What an exercise is called. Keys, positions and drills are named by their ids. */
export type ExerciseName =
  /** One hand shape on one string. */
  | { readonly kind: 'shape'; readonly shapeId: HandShape['id']; readonly stringIndex: number }
  /** The hand that a key asks for on one string in one position. */
  | {
      readonly kind: 'hand'
      readonly keyId: string
      readonly stringIndex: number
      readonly positionId: string
    }
  /** A scale or an arpeggio over the strings. */
  | {
      readonly kind: 'scale' | 'arpeggio'
      readonly keyId: string
      readonly octaves: 1 | 2 | 3
      readonly openStrings: 'prefer' | 'avoid'
    }
  /** A drill on one string, or across them, in the hand of a key. */
  | {
      readonly kind: 'drill'
      readonly drillId: string
      readonly keyId: string
      readonly stringIndex: number
      readonly positionId: string
    }
  /** Two notes that are one by ear: 4 and the next open string, or the octave of 1 and 4 on neighbouring strings; the lower string. */
  | { readonly kind: 'fourth' | 'octave'; readonly stringIndex: number }
  /** Whatever is played: its notes are those that were heard. */
  | { readonly kind: 'free' }

/** A line of expected notes; of a hand each of its places once, from the nut on. */
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
      { stringIndex, finger: 0, note: open, positionId: null },
      ...notesOfShape(open, shape).map(({ finger, note }) => ({
        stringIndex,
        finger,
        note,
        positionId: shape.positionId,
      })),
    ],
  }
}

/** An exercise note for note as it is played: a hand up and down again, a line as it is written. */
export function playedNotes({ name, notes }: Exercise): readonly ExpectedNote[] {
  return name.kind === 'shape' || name.kind === 'hand' ? [...notes, ...notes.slice(0, -1).reverse()] : notes
}

/** Whether two expected notes are one place of one hand: the same finger on the same note of the same string. */
export function isSamePlace(a: ExpectedNote, b: ExpectedNote): boolean {
  return (
    a.stringIndex === b.stringIndex &&
    a.finger === b.finger &&
    a.note.letter === b.note.letter &&
    a.note.accidental === b.note.accidental &&
    a.note.octave === b.note.octave &&
    a.positionId === b.positionId
  )
}

/** The places of an exercise, each once, string by string from the lowest and from the nut on. */
export function placesOf<N extends ExpectedNote>(notes: readonly N[]): N[] {
  const places: N[] = []
  for (const one of notes) if (!places.some((known) => isSamePlace(known, one))) places.push(one)
  return places.sort(
    (a, b) => a.stringIndex - b.stringIndex || midiNumber(a.note) - midiNumber(b.note) || a.finger - b.finger,
  )
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
