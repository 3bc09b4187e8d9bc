import {
  drillsFor,
  nameOfRecord,
  midiNumber,
  noteName,
  parseKey,
  parseNote,
  placementContext,
  recordedName,
  recordedNote,
  shapeExercise,
  shapeOf,
  stringNamed,
  type Exercise,
  type ExpectedNote,
  type Family,
  type Note,
  type Stringing,
} from '#core'
import type { RecordedExercise, ExerciseName, FieldProblem, HandlerInput } from '#contracts'
import type { KeptExercise } from '../../db/rows'
import { ProblemError } from '../../http/problem-error'

type Draft = HandlerInput<'checks.create'>['body']
type DraftExercise = Draft['exercise']

/** How a reading says which note of the exercise it is of. */
export interface NamedNote {
  readonly finger: number
  readonly index: number | null
}

/** The note that is meant; undefined where the exercise has none such. */
export function namedNote<N extends { readonly finger: number }>(
  notes: readonly N[],
  { finger, index }: NamedNote,
): N | undefined {
  if (index === null) return notes.find((n) => n.finger === finger)
  const note = notes[index]
  return note?.finger === finger ? note : undefined
}

/** What was to be played, or every field that the instrument does not have. */
export function exerciseOfDraft(stringing: Stringing, draft: Draft): Exercise {
  const { family, tuning } = stringing
  const { exercise } = draft
  const fields: FieldProblem[] = []
  const name = nameOfRecord(nameOfDraft(exercise), tuning)
  if (!name)
    fields.push({
      path: 'exercise.string',
      message: `This ${family.name} has the strings ${tuning.map((n) => noteName(n)).join(', ')}.`,
    })
  fields.push(...nameFaults(family, exercise))
  if (!name || fields.length > 0) throw new ProblemError('invalid_request', { fields })
  const made =
    exercise.kind === 'shape'
      ? shapeExercise(tuning, stringNamed(tuning, exercise.string)!, shapeOf(family, exercise.shapeId)!)
      : { name, notes: lineOf(stringing, exercise.notes) }
  insistOnNotes(family, made, draft)
  return made
}

function nameOfDraft(draft: DraftExercise): ExerciseName {
  if (draft.kind === 'shape') return draft
  const { notes: _, ...name } = draft
  return name
}

/** An exercise in names: its string by the open string’s note. */
export function exerciseRow({ name, notes }: Exercise, tuning: readonly Note[]): KeptExercise {
  return { ...recordedName(name, tuning), notes: notes.map(recordedNote) }
}

export function exerciseName({ notes: _, ...name }: KeptExercise): ExerciseName {
  return name
}

export function keptExercise(row: KeptExercise): RecordedExercise {
  return { ...row, notes: row.notes.map((n) => ({ ...n, positionId: n.positionId ?? null })) }
}

/** Whatever the name asks for that the family does not have. */
function nameFaults(family: Family, exercise: DraftExercise): FieldProblem[] {
  const faults: FieldProblem[] = []
  const fault = (field: string, message: string) => faults.push({ path: `exercise.${field}`, message })
  if (exercise.kind === 'shape' && !shapeOf(family, exercise.shapeId))
    fault(
      'shapeId',
      `Choose one of the ${family.name}’s hand shapes: ${family.shapes.map((s) => s.id).join(', ')}.`,
    )
  if ('keyId' in exercise && !parseKey(exercise.keyId).ok)
    fault('keyId', 'Name a tonic and a mode, as in D:major.')
  if ('positionId' in exercise && !hasPosition(family, exercise.positionId))
    fault('positionId', positionMessage(family))
  const drills = drillsFor(family.id).map(({ id }) => String(id))
  if (exercise.kind === 'drill' && !drills.includes(exercise.drillId))
    fault('drillId', `Choose one of the drills: ${drills.join(', ')}.`)
  return faults
}

function hasPosition(family: Family, id: string): boolean {
  return family.positions.some((position) => position.id === id)
}

function positionMessage(family: Family): string {
  return `Choose one of the ${family.name}’s positions: ${family.positions.map((p) => p.id).join(', ')}.`
}

/** The notes that were sent, each one that these strings have. */
function lineOf(
  { family, tuning }: Stringing,
  notes: Extract<DraftExercise, { readonly notes: unknown }>['notes'],
): ExpectedNote[] {
  const { lastSemitone } = placementContext(family, tuning)
  const fields: FieldProblem[] = []
  const line = notes.map((sent, i): ExpectedNote => {
    const note = parseNote(sent.note)!
    const open = tuning[sent.stringIndex]
    const path = `exercise.notes.${i}`
    if (!open) {
      fields.push({
        path: `${path}.stringIndex`,
        message: `This ${family.name} has ${tuning.length} strings: count from 0, the lowest.`,
      })
      return { ...sent, note }
    }
    const semitones = midiNumber(note) - midiNumber(open)
    if (sent.finger === 0 ? semitones !== 0 : semitones < 1 || semitones > lastSemitone)
      fields.push({
        path: `${path}.note`,
        message:
          sent.finger === 0
            ? `Finger 0 is the open string, which is ${noteName(open)}.`
            : `${noteName(note)} does not lie on the ${noteName(open)} string.`,
      })
    if (sent.positionId !== null && !hasPosition(family, sent.positionId))
      fields.push({ path: `${path}.positionId`, message: positionMessage(family) })
    return { ...sent, note }
  })
  if (fields.length > 0) throw new ProblemError('invalid_request', { fields })
  return line
}

/** Every reading is of a note that the exercise has. */
function insistOnNotes(family: Family, { notes }: Exercise, { readings, heard }: Draft): void {
  const fingers = [...new Set(notes.map(({ finger }) => finger).filter((finger) => finger !== 0))].sort()
  const fields = [
    ...readings.map((reading, i) => ({ reading, path: `readings.${i}` })),
    ...(heard?.notes ?? []).map((reading, i) => ({ reading, path: `heard.notes.${i}` })),
  ].flatMap(({ reading, path }): FieldProblem[] => {
    const { finger, index } = reading
    if (namedNote(notes, reading)) return []
    if (index === null)
      return [
        {
          path: `${path}.finger`,
          message: `Finger ${finger} stops no note of its own on the ${family.name} here; use ${fingers.join(', ')}.`,
        },
      ]
    return [
      {
        path: `${path}.index`,
        message: `The exercise has ${notes.length} notes, counted from 0; note ${index} is none that finger ${finger} plays.`,
      },
    ]
  })
  if (fields.length > 0) throw new ProblemError('invalid_request', { fields })
}
