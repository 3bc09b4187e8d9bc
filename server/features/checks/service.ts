import { v7 as uuid } from 'uuid'
import {
  decodeTrack,
  judgeTake,
  landingAtCents,
  landingFromMeter,
  snapshotOf,
  type Exercise,
  type Landing,
  type Stringing,
} from '#core'
import type { Check, CheckSummary, HandlerInput } from '#contracts'
import type { CheckRow } from '../../db/rows'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { instrumentRepository } from '../instruments/repository'
import { stringingOfFacts } from '../instruments/service'
import { studentRepository } from '../students/repository'
import { toleranceOf } from '../students/tolerance'
import { checkDto, checkSummaryDto, keptVerdict, landingRows } from './dto'
import { exerciseOfDraft, exerciseRow, namedNote, type NamedNote } from './exercise'
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

    async latest(studentId: string): Promise<CheckSummary[]> {
      await existingStudent(studentId)
      const latest = new Map<string, CheckSummary>()
      for (const row of await repository.recent(studentId)) {
        const summary = checkSummaryDto(row)
        const exercise = JSON.stringify(summary.exercise)
        if (!latest.has(exercise)) latest.set(exercise, summary)
      }
      return [...latest.values()]
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
      const exercise = exerciseOfDraft(stringing, draft)
      const landings = landingsOfDraft(stringing, exercise, draft)
      const track = trackOfDraft(draft)
      const check: Omit<CheckRow, 'studioId'> = {
        id: uuid(),
        studentId,
        instrumentId: facts.instrument.id,
        userId: user.id,
        takenAt: new Date(draft.takenAt),
        exercise: exerciseRow(exercise, stringing.tuning),
        stringing: snapshotOf(stringing),
        toleranceCents,
        tapesCovered: draft.tapesCovered,
        hasTrack: track !== null,
        verdict: keptVerdict(judgeTake({ stringing, exercise, landings, toleranceCents })),
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
  const expected = (reading: NamedNote) => namedNote(exercise.notes, reading)!
  const typed = readings.map((reading) =>
    landingFromMeter(stringing, expected(reading), reading.shownCents, reading.atMs),
  )
  const listened = (heard?.notes ?? []).map(
    ({ finger, index, landingCents, landingSigmaCents, atMs, ...beside }): Landing =>
      landingAtCents(stringing, expected({ finger, index }), landingCents, {
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
