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
import type { Check, CheckSummary, HandlerInput, History, VerdictCounts } from '#contracts'
import type { CheckRow } from '../../db/rows'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { instrumentRepository } from '../instruments/repository'
import { loggedEvent } from '../instruments/dto'
import { stringingOfFacts } from '../instruments/service'
import { studentRepository } from '../students/repository'
import { toleranceOf } from '../students/tolerance'
import { tapeRepository } from '../tapes/repository'
import { checkDto, checkSummaryDto, keptVerdict, landingRows, pastCheckDto, type CheckFacts } from './dto'
import { exerciseOfDraft, exerciseRow, namedNote, type NamedNote } from './exercise'
import { checkRepository } from './repository'
import { isOutdated, rejudged, strungNow } from './rejudge'
import { pastRecord } from './take'

/** Within how long verdicts are counted, ms: a year of lessons says how strict a tolerance is, and costs the same in the tenth year. */
const COUNTED_MS = 365 * 86_400_000

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
    return (await told([facts]))[0]!
  }

  /** Checks as they are answered, judged anew where their instruments were measured again. */
  async function told(facts: readonly CheckFacts[]): Promise<Check[]> {
    const strung = await strungNow(
      store,
      facts.map(({ check }) => check.instrumentId),
    )
    return facts.map((one) => checkDto(one, rejudged(strung.get(one.check.instrumentId), one)))
  }

  return {
    read,

    async list(studentId: string, page: HandlerInput<'checks.list'>['query']): Promise<Check[]> {
      await existingStudent(studentId)
      return told(await repository.ofStudent(studentId, page))
    },

    /** All checks in a few numbers each, with the instruments and tapes of those days. */
    async history(studentId: string): Promise<History> {
      await existingStudent(studentId)
      const [checks, loans] = await Promise.all([
        repository.past(studentId),
        studentRepository(store).loansOf(studentId),
      ])
      const held = [...new Set(loans.map(({ instrumentId }) => instrumentId))]
      const tapes = await tapeRepository(store).eventsOf(held)
      const strung = await strungNow(
        store,
        checks.map(({ instrumentId }) => instrumentId),
      )
      return {
        checks: checks.map((row) =>
          pastCheckDto(row, isOutdated(strung.get(row.instrumentId), row.stringing)),
        ),
        loans,
        tapes: tapes.flatMap(({ instrumentId, markId, onDate, kind }) =>
          markId === null ? [] : [{ instrumentId, markId, on: onDate, kind }],
        ),
      }
    },

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

    async counts(): Promise<VerdictCounts> {
      const rows = await repository.counts(new Date(now.getTime() - COUNTED_MS))
      return rows.map(({ accepted, overruled, tooStrict, ...row }) => ({
        ...row,
        accepted: Number(accepted),
        overruled: Number(overruled),
        tooStrict: Number(tooStrict),
      }))
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
