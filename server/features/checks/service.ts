import { v7 as uuid } from 'uuid'
import {
  decodeTrack,
  judgeHand,
  landingAtCents,
  landingFromMeter,
  noteName,
  parseNote,
  shapeExercise,
  shapeOf,
  snapshotOf,
  type Exercise,
  type Landing,
  type Stringing,
} from '#core'
import type { Check, FieldProblem, HandlerInput } from '#contracts'
import type { CheckRow } from '../../db/rows'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { instrumentRepository } from '../instruments/repository'
import { stringingOfFacts } from '../instruments/service'
import { studentRepository } from '../students/repository'
import { toleranceOf } from '../students/tolerance'
import { checkDto, keptExercise, keptVerdict, landingRows } from './dto'
import { checkRepository } from './repository'

type Draft = HandlerInput<'checks.create'>['body']

export function checkService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const repository = checkRepository(store)
  const { user } = signedIn.session

  async function existingStudent(id: string) {
    const student = await studentRepository(store).byId(id)
    if (!student) throw new ProblemError('not_found')
    return student
  }

  async function read(id: string): Promise<Check> {
    const facts = await repository.byId(id)
    if (!facts) throw new ProblemError('not_found')
    return checkDto(facts)
  }

  return {
    async list(studentId: string): Promise<Check[]> {
      await existingStudent(studentId)
      return (await repository.ofStudent(studentId)).map(checkDto)
    },

    /** Judges the readings with the core, whatever the page thought of them, and keeps both with the strings as they are. */
    async create(studentId: string, draft: Draft): Promise<Check> {
      insistOnDay(now, draft.takenAt.slice(0, 10), 'takenAt')
      const [student, facts] = await Promise.all([
        existingStudent(studentId),
        instrumentRepository(store).stringsOf(draft.instrumentId),
      ])
      const toleranceCents = toleranceOf(student, signedIn.session.studio.settings)
      if (!facts) throw fieldProblem('instrumentId', 'Choose one of the studio’s instruments.')
      const stringing = stringingOfFacts(facts, draft.system)
      const exercise = exerciseOf(stringing, draft)
      const landings = landingsOfDraft(stringing, exercise, draft)
      const track = trackOfDraft(draft)
      const check: Omit<CheckRow, 'studioId'> = {
        id: uuid(),
        studentId,
        instrumentId: facts.instrument.id,
        userId: user.id,
        takenAt: new Date(draft.takenAt),
        exercise: keptExercise(exercise),
        stringing: snapshotOf(stringing),
        toleranceCents,
        tapesCovered: draft.tapesCovered,
        hasTrack: track !== null,
        verdict: keptVerdict(judgeHand({ stringing, exercise, landings, toleranceCents })),
        unmoved: null,
        note: draft.note,
        recordedAt: now,
        removedAt: null,
      }
      const rows = landingRows(check.id, landings)
      await repository.add(check, rows, track)
      return checkDto({ check, landings: rows, by: user.name })
    },

    async track(id: string): Promise<{ track: string }> {
      const bytes = await repository.trackOf(id)
      if (!bytes) throw new ProblemError('not_found')
      return { track: bytes.toString('base64') }
    },

    async remove(id: string): Promise<null> {
      if (!(await repository.setRemoved(id, now))) throw new ProblemError('not_found')
      return null
    },

    async restore(id: string): Promise<Check> {
      if (!(await repository.setRemoved(id, null))) throw new ProblemError('not_found')
      return read(id)
    },
  }
}

/** Everything that was read or heard, in order. */
function landingsOfDraft(stringing: Stringing, exercise: Exercise, { readings, heard }: Draft): Landing[] {
  const expected = (finger: number) => exercise.notes.find((n) => n.finger === finger)!
  const typed = readings.map(({ finger, shownCents, atMs }) =>
    landingFromMeter(stringing, expected(finger), shownCents, atMs),
  )
  const listened = (heard?.notes ?? []).map(
    ({ finger, landingCents, landingSigmaCents, atMs, ...beside }): Landing =>
      landingAtCents(stringing, expected(finger), landingCents, {
        sigmaCents: landingSigmaCents,
        atMs,
        source: heard!.source,
        heard: beside,
      }),
  )
  return [...typed, ...listened]
}

/** A track that can be read again, or none. */
function trackOfDraft({ heard }: Draft): Buffer | null {
  if (!heard?.track) return null
  const bytes = Buffer.from(heard.track, 'base64')
  try {
    decodeTrack(bytes)
  } catch (error) {
    throw fieldProblem('heard.track', `Send the track as it was coded: ${(error as Error).message}.`)
  }
  return bytes
}

/** What was to be played, or every field that the instrument does not have. */
function exerciseOf({ family, tuning }: Stringing, { exercise, readings, heard }: Draft): Exercise {
  const wanted = parseNote(exercise.string)
  const stringIndex = tuning.findIndex((n) => wanted && noteName(n) === noteName(wanted))
  const shape = shapeOf(family, exercise.shapeId)
  const fields: FieldProblem[] = []
  if (stringIndex < 0)
    fields.push({
      path: 'exercise.string',
      message: `This ${family.id} has the strings ${tuning.map((n) => noteName(n)).join(', ')}.`,
    })
  if (!shape)
    fields.push({
      path: 'exercise.shapeId',
      message: `Choose one of the ${family.id}’s hand shapes: ${family.shapes.map((s) => s.id).join(', ')}.`,
    })
  const fingers = Object.keys(shape?.fingers ?? {})
  const named = [
    ...readings.map(({ finger }, i) => ({ finger, path: `readings.${i}.finger` })),
    ...(heard?.notes ?? []).map(({ finger }, i) => ({ finger, path: `heard.notes.${i}.finger` })),
  ]
  for (const { finger, path } of named)
    if (shape && finger !== 0 && !shape.fingers[finger])
      fields.push({
        path,
        message: `Finger ${finger} stops no note of its own on the ${family.id} here; use ${fingers.join(', ')}.`,
      })
  if (!shape || fields.length > 0) throw new ProblemError('invalid_request', { fields })
  return shapeExercise(tuning, stringIndex, shape)
}
