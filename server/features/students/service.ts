import { v7 as uuid } from 'uuid'
import { familyOf, schoolOf, type FamilyId } from '#core'
import { LABEL_LENGTH } from '#contracts/instruments'
import type { HandlerInput, Student } from '#contracts'
import { isConflict } from '../../db/errors'
import type { Call } from '../../http/call'
import { given } from '../../http/given'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { attachmentRepository } from '../attachments/repository'
import { readInstruments } from '../instruments/reads'
import { instrumentService } from '../instruments/service'
import { studentReads } from './reads'
import { studentRepository } from './repository'

type Enrolment = HandlerInput<'students.create'>['body']
type Brought = NonNullable<Enrolment['instrument']>
type Change = Omit<HandlerInput<'students.update'>['body'], 'version'>

export function studentService(call: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const { store, now } = call
  const repository = studentRepository(store)
  const { existing, ...reads } = studentReads(call)
  const { read } = reads

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
    const instruments = instrumentService(call)
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
    ...reads,

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
