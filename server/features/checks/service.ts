import { v7 as uuid } from 'uuid'
import {
  isoDay,
  decodeTrack,
  earlierTakes,
  judge,
  landingAtCents,
  landingOfReading,
  snapshotOf,
  summaryOf,
  tapesNow,
  type Exercise,
  type JudgedTake,
  type Landing,
  type Stringing,
} from '#core'
import type { Check, HandlerInput } from '#contracts'
import type { CheckRow } from '../../db/rows'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { instrumentRepository } from '../instruments/repository'
import { loggedEvent } from '../instruments/dto'
import { stringingOfFacts } from '../instruments/reads'
import { toleranceOf } from '../students/tolerance'
import { tapeRepository } from '../tapes/repository'
import { checkDto, keptVerdict, landingRows } from './dto'
import { exerciseOfDraft, exerciseRow, namedNote, type NamedNote } from './exercise'
import { checkRepository } from './repository'
import { checkReads } from './reads'
import { pastRecord } from './take'

type Draft = HandlerInput<'checks.create'>['body']

export function checkService(call: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const { store, signedIn, now } = call
  const repository = checkRepository(store)
  const { existingStudent, ...reads } = checkReads(call)
  const { read } = reads
  const { user } = signedIn.session

  return {
    ...reads,

    /** What the teacher says to a verdict; what was said before is replaced. */
    async decide(id: string, draft: HandlerInput<'checks.decide'>['body']): Promise<Check> {
      await read(id)
      await repository.setDecision(id, {
        ...draft,
        reason: draft.says === 'overruled' ? draft.reason : null,
        by: user.name,
        at: now.toISOString(),
      })
      return read(id)
    },

    /** Whether what was agreed at a check is mended; where nothing was, nothing changes. */
    async mend(id: string, isMended: boolean): Promise<Check> {
      const { decision } = await read(id)
      if (decision?.workOn) await repository.setDecision(id, { ...decision, isMended })
      return read(id)
    },

    /** Takes back what was said. */
    async undecide(id: string): Promise<Check> {
      await read(id)
      await repository.setDecision(id, null)
      return read(id)
    },

    /** Judges the readings with the core, whatever the page thought of them, and keeps both with the strings as they are. */
    async create(studentId: string, draft: Draft): Promise<Check> {
      insistOnDay(now, isoDay(new Date(draft.takenAt), signedIn.session.studio.settings.timeZone), 'takenAt')
      const takenAt = new Date(draft.takenAt)
      const [student, facts, taping, before] = await Promise.all([
        existingStudent(studentId),
        instrumentRepository(store).stringsOf(draft.instrumentId),
        tapeRepository(store).eventsOf([draft.instrumentId]),
        draft.withEarlier
          ? // Only beside covered tapes it is asked where the fingers landed in their sight.
            repository.before({ studentId, instrumentId: draft.instrumentId }, takenAt, draft.tapesCovered)
          : Promise.resolve([]),
      ])
      const toleranceCents = toleranceOf(student, signedIn.session.studio.settings)
      if (!facts) throw fieldProblem('instrumentId', 'Choose one of the studio’s instruments.')
      const stringing = stringingOfFacts(facts, draft.system)
      const exercise = exerciseOfDraft(stringing, draft)
      const tapesMm = tapesNow(taping.map(loggedEvent)).map(({ placeMm }) => placeMm)
      const landings = landingsOfDraft(stringing, exercise, draft, tapesMm)
      const take: JudgedTake = {
        stringing,
        exercise,
        landings,
        tapesMm,
        toleranceCents,
        tapesCovered: draft.tapesCovered,
        earlier: earlierTakes(before.map(pastRecord), takenAt.getTime()),
      }
      const { verdict, likely, belief } = judge(take)
      const track = trackOfDraft(draft)
      const check: Omit<CheckRow, 'studioId'> = {
        id: uuid(),
        studentId,
        instrumentId: facts.instrument.id,
        userId: user.id,
        takenAt,
        exercise: exerciseRow(exercise, stringing.tuning),
        stringing: snapshotOf(stringing),
        toleranceCents,
        tapesCovered: draft.tapesCovered,
        hasTrack: track !== null,
        tapesMm,
        verdict: keptVerdict(verdict),
        decision: null,
        summary: summaryOf(take) ?? null,
        likely,
        belief,
        unmoved: null,
        note: draft.note,
        recordedAt: now,
        removedAt: null,
      }
      const rows = landingRows(check.id, landings)
      await repository.add(check, rows, track)
      return checkDto({ check, landings: rows, by: user.name })
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
function landingsOfDraft(
  stringing: Stringing,
  exercise: Exercise,
  { readings, heard }: Draft,
  tapesMm: readonly number[],
): Landing[] {
  const expected = (reading: NamedNote) => namedNote(exercise.notes, reading)!
  const typed = readings.map((reading) =>
    landingOfReading(stringing, expected(reading), reading, { atMs: reading.atMs, tapesMm }),
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
