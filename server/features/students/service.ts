import { group } from 'd3-array'
import { v7 as uuid } from 'uuid'
import { familyOf, schoolOf, type FamilyId } from '#core'
import { LABEL_LENGTH } from '#contracts/instruments'
import type { Answer, HandlerInput, Student } from '#contracts'
import { isConflict } from '../../db/database'
import { readAll, readInParts } from '../../db/reads'
import type { StudentRow } from '../../db/rows'
import type { Call } from '../../http/call'
import { given } from '../../http/given'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { attachmentRepository } from '../attachments/repository'
import { checkSummaryDto } from '../checks/dto'
import { handNow } from '../hands/dto'
import { handRepository } from '../hands/repository'
import { instrumentService, readInstruments } from '../instruments/service'
import { painDto, setupNowFor } from '../setup/dto'
import { setupRepository } from '../setup/repository'
import { studentRepository, type StudentFacts } from './repository'
import { toleranceOf } from './tolerance'

type Enrolment = HandlerInput<'students.create'>['body']
type Brought = NonNullable<Enrolment['instrument']>
type Change = Omit<HandlerInput<'students.update'>['body'], 'version'>

export function studentService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
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

  async function existing(id: string): Promise<StudentRow> {
    const row = await repository.byId(id)
    if (!row) throw new ProblemError('not_found')
    return row
  }

  async function read(id: string): Promise<Student> {
    const facts = await repository.factsOf(id)
    if (!facts) throw new ProblemError('not_found')
    return (await withFacts([facts]))[0]!
  }

  async function lend(id: string, instrumentId: string | null, on: string): Promise<Student> {
    insistOnDay(now, on, 'on')
    await existing(id)
    const lent =
      instrumentId === null ? undefined : (await readInstruments(store, [instrumentId])).get(instrumentId)
    if (instrumentId !== null && !lent)
      throw fieldProblem('instrumentId', 'Choose one of the studio’s instruments.')
    if (lent && lent.removedAt !== null)
      throw fieldProblem('instrumentId', `${lent.label} is out of the cupboard: put it back there first.`)
    await repository.endLoans(id, instrumentId, on)
    if (instrumentId !== null)
      await repository
        .addLoan({ id: uuid(), studentId: id, instrumentId, fromDate: on, toDate: null })
        .catch((error: unknown) => {
          if (!isConflict(error)) throw error
          throw new ProblemError('taken_meanwhile', {
            detail: 'The instrument was lent to somebody else at the same moment. Nothing was changed.',
          })
        })
    return read(id)
  }

  /** Writes down and measures what somebody brings along; what is wrong with it is said of its own fields. */
  async function brought({ name, family }: Enrolment, of: Brought): Promise<string> {
    const { sizeId, length, on: measuredOn, keepAnyway, label = ownLabel(family, name) } = of
    const instruments = instrumentService({ store, signedIn, now })
    try {
      insistOnDay(now, measuredOn, 'on')
      const { id } = await instruments.create({ label, family, sizeId })
      if (length.trim() !== '')
        await instruments.measure(id, { length, method: 'bridge', measuredOn, keepAnyway })
      return id
    } catch (error) {
      if (!(error instanceof ProblemError)) throw error
      throw new ProblemError(error.code, {
        ...error.particulars,
        fields: (error.particulars.fields ?? []).map((field) => ({
          ...field,
          path: `instrument.${field.path}`,
        })),
      })
    }
  }

  return {
    read,

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

    async create(draft: HandlerInput<'students.create'>['body']): Promise<Student> {
      insistOnSchool(draft.family, draft.tapeSchoolId)
      insistOnBirth(draft.birthYear, now)
      insistOnConsent(draft.soundConsent, now)
      const id = uuid()
      const { lesson, instrument, ...rest } = draft
      await repository.add({
        id,
        version: 1,
        ...rest,
        ...lessonColumns(lesson),
        setupNow: null,
        createdAt: now,
        removedAt: null,
      })
      return instrument ? lend(id, await brought(draft, instrument), instrument.on) : read(id)
    },

    async update(id: string, version: number, change: Change): Promise<Student> {
      const row = await existing(id)
      const { lesson, ...rest } = change
      const family = rest.family ?? (row.family as FamilyId)
      // A school belongs to a family: who changes the family alone starts with the new family's default.
      if (rest.tapeSchoolId === undefined && family !== row.family) rest.tapeSchoolId = null
      if (rest.tapeSchoolId !== undefined) insistOnSchool(family, rest.tapeSchoolId)
      insistOnBirth(rest.birthYear, now)
      insistOnConsent(rest.soundConsent, now)
      // A tolerance of one's own takes the place of a level's.
      if (rest.toleranceCents !== undefined && rest.level === undefined) rest.level = null
      const values = { ...given(rest), ...(lesson === undefined ? {} : lessonColumns(lesson)) }
      if (!(await repository.change(id, version, values)))
        throw new ProblemError('changed_meanwhile', {
          detail: 'Your entries are still here. Look at what changed, then save again.',
          data: await read(id),
        })
      if (rest.soundConsent === null && row.soundConsent !== null)
        await attachmentRepository(store).removeSoundOf(id, now)
      return read(id)
    },

    async remove(id: string): Promise<null> {
      if (!(await repository.setRemoved(id, now))) throw new ProblemError('not_found')
      return null
    },

    async restore(id: string): Promise<Student> {
      await existing(id)
      await repository.setRemoved(id, null)
      return read(id)
    },

    lend,
  }
}

/** What an instrument is called that belongs to somebody: by its family and the last word of the name. */
function ownLabel(family: FamilyId, name: string): string {
  return [...`own ${familyOf(family).name}, ${name.trim().split(/\s+/).at(-1)}`]
    .slice(0, LABEL_LENGTH)
    .join('')
}

/** Zod cannot know what year it is. */
function insistOnBirth(birthYear: number | null | undefined, now: Date): void {
  if (birthYear != null && birthYear > now.getFullYear())
    throw fieldProblem('birthYear', 'This year of birth is still to come: look at it again.')
}

function insistOnConsent(consent: { readonly on: string } | null | undefined, now: Date): void {
  if (consent) insistOnDay(now, consent.on, 'soundConsent.on')
}

function insistOnSchool(familyId: FamilyId, schoolId: string | null): void {
  if (schoolId !== null && !schoolOf(familyOf(familyId), schoolId))
    throw fieldProblem('tapeSchoolId', `Choose one of the ${familyOf(familyId).name}’s tape schools.`)
}

function lessonColumns(lesson: { weekday: number; time: string } | null) {
  return { lessonWeekday: lesson?.weekday ?? null, lessonTime: lesson?.time ?? null }
}

function workingOn(work: StudentFacts['work']): Student['workingOn'] {
  if (!work?.decision?.workOn || work.decision.isMended) return null
  return { checkId: work.id, workOn: work.decision.workOn, since: work.takenAt.toISOString() }
}
