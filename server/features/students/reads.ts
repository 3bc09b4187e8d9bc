import { group } from 'd3-array'
import type { FamilyId } from '#core'
import type { Answer, HandlerInput, Student } from '#contracts'
import { readAll, readInParts } from '../../db/reads'
import type { StudentRow } from '../../db/rows'
import type { Call } from '../../http/call'
import { ProblemError } from '../../http/problem-error'
import { checkSummaryDto } from '../checks/dto'
import { handNow } from '../hands/dto'
import { handRepository } from '../hands/repository'
import { readInstruments } from '../instruments/reads'
import { painDto, setupNowFor } from '../setup/dto'
import { setupRepository } from '../setup/repository'
import { studentRepository, type StudentFacts } from './repository'
import { toleranceOf } from './tolerance'

export function studentReads({ store, signedIn }: Pick<Call, 'store' | 'signedIn'>) {
  const repository = studentRepository(store)
  const { settings } = signedIn.session.studio

  async function withFacts(facts: readonly StudentFacts[]): Promise<Student[]> {
    const ids = facts.map(({ student }) => student.id)
    const [instruments, hands, pains] = await readAll(facts.length > 1, [
      () =>
        readInstruments(
          store,
          facts.flatMap(({ instrumentId }) => instrumentId ?? []),
        ),
      () => handRepository(store).ofStudents(ids),
      () => setupRepository(store).pains.openOf(ids),
    ])
    const handsOf = group(hands, (row) => row.studentId)
    const painsOf = group(pains, (row) => row.studentId)
    return facts.map(({ student, instrumentId, lastCheck, work }) => ({
      id: student.id,
      version: student.version,
      name: student.name,
      birthYear: student.birthYear,
      family: student.family as FamilyId,
      toleranceCents: toleranceOf(student, settings),
      level: student.level,
      schools: student.schools ?? {},
      tapeSchoolId: student.tapeSchoolId,
      system: student.system,
      lesson:
        student.lessonWeekday !== null && student.lessonTime !== null
          ? { weekday: student.lessonWeekday, time: student.lessonTime }
          : null,
      soundConsent: student.soundConsent,
      note: student.note,
      removedAt: student.removedAt?.toISOString() ?? null,
      instrument: (instrumentId !== null && instruments.get(instrumentId)) || null,
      lastCheck: lastCheck ? checkSummaryDto(lastCheck) : null,
      workingOn: workingOn(work),
      hand: handNow(handsOf.get(student.id) ?? []),
      setup: setupNowFor(student.family as FamilyId, student.setupNow, settings.setup),
      pains: (painsOf.get(student.id) ?? []).map(painDto),
    }))
  }

  async function read(id: string): Promise<Student> {
    const facts = await repository.factsOf(id)
    if (!facts) throw new ProblemError('not_found')
    return (await withFacts([facts]))[0]!
  }

  async function existing(id: string): Promise<StudentRow> {
    const row = await repository.byId(id)
    if (!row) throw new ProblemError('not_found')
    return row
  }

  return {
    existing,
    read,

    /** In the order of these ids. */
    ofIds: async (ids: readonly string[]): Promise<Student[]> =>
      readInParts(await repository.ofIds(ids), withFacts),

    async list(listing: HandlerInput<'students.list'>['query']): Promise<Answer<'students.list'>> {
      const { total, rows } = await repository.roster(listing)
      return { total, rows: await readInParts(rows, withFacts) }
    },

    /** The lessons of the first day that has some, counted from a day of the week (0 is Sunday). */
    async lessons({
      from,
      ...page
    }: HandlerInput<'students.lessons'>['query']): Promise<Answer<'students.lessons'>> {
      const days = await repository.lessonDays()
      const ahead = Array.from({ length: 7 }, (_, i) => (from + i) % 7)
      const weekday = ahead.find((day) => days.includes(day))
      if (weekday === undefined) return { weekday: null, total: 0, students: [] }
      const { total, rows } = await repository.withLessonOn(weekday, page)
      return { weekday, total, students: await readInParts(rows, withFacts) }
    },
  }
}

function workingOn(work: StudentFacts['work']): Student['workingOn'] {
  if (!work?.decision?.workOn || work.decision.isMended) return null
  return { checkId: work.id, workOn: work.decision.workOn, since: work.takenAt.toISOString() }
}
