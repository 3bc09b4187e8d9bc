import { Op, type WhereOptions } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { dayNumber, dayOf, isPracticedOn, type FamilyId, type PracticeId } from '#core'
import type { HandlerInput, Plan, PracticeEntry } from '#contracts'
import type { PracticeEntryRow, PracticePlanRow } from '../../db/rows'
import type { By } from '../../db/studio-store'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { studentRepository } from '../students/repository'

type Days = HandlerInput<'plans.between'>['query']

const WEEK_DAYS = 7
/** A studio looks at a term of its own at most. */
const LONGEST_STRETCH_DAYS = 200

/** What students are given to practise, and what they did. */
export function practiceService({ store, signedIn, now }: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const { practicePlan, practiceEntry } = store.models
  const students = studentRepository(store)
  const userId = signedIn.session.user.id

  async function existingStudent(id: string) {
    const facts = await students.factsOf(id)
    if (!facts) throw new ProblemError('not_found')
    return facts
  }

  async function read(id: string): Promise<Plan> {
    const [row] = await store.written(practicePlan, { id })
    if (!row) throw new ProblemError('not_found')
    return planDto(row)
  }

  /** Of each student and week the plan that was given last, the newest week first. */
  async function plansWhere(where: WhereOptions<PracticePlanRow>): Promise<Plan[]> {
    const rows = await store.written(
      practicePlan,
      { ...where, removedAt: null },
      {
        order: [
          ['startsOn', 'DESC'],
          ['recordedAt', 'DESC'],
          ['id', 'DESC'],
        ],
      },
    )
    const newest = new Map<string, By<PracticePlanRow>>()
    for (const row of rows) {
      const week = `${row.studentId} ${row.startsOn}`
      if (!newest.has(week)) newest.set(week, row)
    }
    return [...newest.values()].map(planDto)
  }

  /** Of each student, exercise and day what was said last; what was taken back is not there. */
  async function practiceWhere(where: WhereOptions<PracticeEntryRow>): Promise<PracticeEntry[]> {
    const rows = await store.written(practiceEntry, where, {
      order: [
        ['recordedAt', 'ASC'],
        ['id', 'ASC'],
      ],
    })
    const newest = new Map<string, By<PracticeEntryRow>>()
    for (const row of rows) newest.set(`${row.studentId} ${row.practisedOn} ${row.exerciseId}`, row)
    return [...newest.values()]
      .filter(({ isDone }) => isDone)
      .map(entryDto)
      .sort((a, b) => (a.on < b.on ? -1 : a.on > b.on ? 1 : 0))
  }

  function stretch({ from, to }: Days): { [Op.between]: [string, string] } {
    const days = dayNumber(to) - dayNumber(from)
    if (days < 0) throw fieldProblem('to', 'The last day comes before the first: swap them.')
    if (days > LONGEST_STRETCH_DAYS)
      throw fieldProblem('to', `Look at ${LONGEST_STRETCH_DAYS} days at once at most.`)
    return { [Op.between]: [from, to] }
  }

  return {
    async plansOf(studentId: string): Promise<Plan[]> {
      await existingStudent(studentId)
      return plansWhere({ studentId })
    },

    plansBetween: (days: Days): Promise<Plan[]> => plansWhere({ startsOn: stretch(days) }),

    async give(studentId: string, draft: HandlerInput<'plans.give'>['body']): Promise<Plan> {
      // Two teachers who plan one student at once come one after the other.
      await store.select(
        'SELECT id FROM student WHERE studio_id = :studioId AND id = :studentId FOR UPDATE',
        {
          studentId,
        },
      )
      const { student, instrumentId } = await existingStudent(studentId)
      const { after, ...plan } = draft
      if (plan.family !== student.family)
        throw fieldProblem('family', `${student.name} plays the ${student.family} now: plan the week anew.`)
      if (plan.instrumentId !== null && plan.instrumentId !== instrumentId)
        throw new ProblemError('taken_meanwhile', {
          detail: `${student.name} no longer has the instrument that this was planned for: plan the week anew.`,
        })
      insistOnWeek(plan, student.family)
      const [there] = await plansWhere({ studentId, startsOn: plan.startsOn })
      if ((there?.id ?? null) !== after)
        throw new ProblemError('changed_meanwhile', {
          detail: there
            ? `${there.by} has given ${student.name} a plan for this week meanwhile: look at it first.`
            : 'The plan of this week was taken out meanwhile: look at the file first.',
          data: there ?? null,
        })
      const id = uuid()
      await store.insert(practicePlan, [{ id, studentId, userId, ...plan, recordedAt: now, removedAt: null }])
      return read(id)
    },

    async setRemoved(id: string, isRemoved: boolean): Promise<Plan> {
      const changed = await store.update(practicePlan, { id }, { removedAt: isRemoved ? now : null })
      if (changed !== 1) throw new ProblemError('not_found')
      return read(id)
    },

    async practiceOf(studentId: string): Promise<PracticeEntry[]> {
      await existingStudent(studentId)
      return practiceWhere({ studentId })
    },

    practiceBetween: (days: Days): Promise<PracticeEntry[]> => practiceWhere({ practisedOn: stretch(days) }),

    async say(
      studentId: string,
      { entries }: HandlerInput<'practice.say'>['body'],
    ): Promise<PracticeEntry[]> {
      entries.forEach(({ on }, index) => insistOnDay(now, on, `entries.${index}.on`))
      await existingStudent(studentId)
      await store.insert(
        practiceEntry,
        entries.map(({ on, ...said }) => ({
          id: uuid(),
          studentId,
          userId,
          ...said,
          practisedOn: on,
          recordedAt: now,
        })),
      )
      return practiceWhere({ studentId })
    },
  }
}

/** Every card is of the week, once a day, and of this hand. */
function insistOnWeek(
  { startsOn, cards }: Pick<HandlerInput<'plans.give'>['body'], 'startsOn' | 'cards'>,
  family: FamilyId,
): void {
  const last = dayOf(dayNumber(startsOn) + WEEK_DAYS - 1)
  const seen = new Set<string>()
  cards.forEach(({ on, exerciseId }, index) => {
    if (on < startsOn || on > last)
      throw fieldProblem(`cards.${index}.on`, `Choose a day of the week from ${startsOn} to ${last}.`)
    if (!isPracticedOn(exerciseId, family))
      throw fieldProblem(`cards.${index}.exerciseId`, `The ${family} has no such exercise: leave it out.`)
    const once = `${on} ${exerciseId}`
    if (seen.has(once)) throw fieldProblem(`cards.${index}`, 'This exercise is there twice on one day.')
    seen.add(once)
  })
}

function planDto(row: By<PracticePlanRow>): Plan {
  return {
    id: row.id,
    studentId: row.studentId,
    startsOn: row.startsOn,
    family: row.family as FamilyId,
    instrumentId: row.instrumentId,
    minutesADay: row.minutesADay,
    weekdays: row.weekdays,
    cards: row.cards,
    pieces: row.pieces,
    by: row.by,
    at: row.recordedAt.toISOString(),
  }
}

function entryDto(row: By<PracticeEntryRow>): PracticeEntry {
  return {
    studentId: row.studentId,
    exerciseId: row.exerciseId as PracticeId,
    on: row.practisedOn,
    isDone: Boolean(row.isDone),
    minutes: row.minutes,
    times: row.times,
    by: row.by,
    at: row.recordedAt.toISOString(),
  }
}
