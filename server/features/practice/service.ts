import { group } from 'd3-array'
import { v7 as uuid } from 'uuid'
import {
  checkForPlan,
  dayNumber,
  dayOf,
  exerciseBook,
  followedBy,
  isoDay,
  isPracticedOn,
  isPracticeId,
  mendCounts,
  type ExerciseBook,
  type ExerciseId,
  type FamilyId,
} from '#core'
import type { Answer, HandlerInput, Plan, PracticeEntry } from '#contracts'
import type { Call } from '../../http/call'
import { insistOnDay } from '../../http/days'
import { fieldProblem, ProblemError } from '../../http/problem-error'
import { checkRepository } from '../checks/repository'
import { setupRepository } from '../setup/repository'
import { studentReads } from '../students/reads'
import { settingsOf } from '../studio/settings'
import { studentRepository } from '../students/repository'
import { entryDto, planDto } from './dto'
import { practiceRepository } from './repository'

type Draft = HandlerInput<'plans.give'>['body']

const WEEK_DAYS = 7
/** Half a year of lessons. */
const LOOKED_BACK_DAYS = 182
/** A studio looks at a month of its own at most. */
const LONGEST_STRETCH_DAYS = 31

/** What students are given to practise, and what they did. */
export function practiceService(call: Pick<Call, 'store' | 'signedIn' | 'now'>) {
  const { store, signedIn, now } = call
  const practice = practiceRepository(store)
  const userId = signedIn.session.user.id

  async function existingStudent(id: string) {
    const facts = await studentRepository(store).factsOf(id)
    if (!facts) throw new ProblemError('not_found')
    return facts
  }

  async function read(id: string): Promise<Plan> {
    const row = await practice.byId(id)
    if (!row) throw new ProblemError('not_found')
    return planDto(row)
  }

  const studioSettings = async () => settingsOf((await store.studio())?.settings)
  /** The studio’s own exercises are read where one of them is named. */
  const bookFor = async (named: readonly { readonly exerciseId: ExerciseId }[]) =>
    named.every(({ exerciseId }) => isPracticeId(exerciseId))
      ? exerciseBook()
      : exerciseBook((await studioSettings()).exercises)
  const doneBy = async (studentId: string) => (await practice.doneBy([studentId])).map(entryDto)

  return {
    async plansOf(studentId: string): Promise<Plan[]> {
      await existingStudent(studentId)
      return (await practice.plansOf(studentId)).map(planDto)
    },

    async give(studentId: string, { after, ...plan }: Draft): Promise<Plan> {
      await practice.hold(studentId)
      const { student, instrumentId } = await existingStudent(studentId)
      if (plan.family !== student.family)
        throw fieldProblem('family', `${student.name} plays the ${student.family} now: plan the week anew.`)
      if (plan.instrumentId !== null && plan.instrumentId !== instrumentId)
        throw new ProblemError('taken_meanwhile', {
          detail: `${student.name} no longer has the instrument that this was planned for: plan the week anew.`,
        })
      insistOnWeek(plan, student.family, await bookFor(plan.cards))
      const [there] = await practice.plansOf(studentId, plan.startsOn)
      if ((there?.id ?? null) !== after)
        throw new ProblemError('changed_meanwhile', {
          detail: there
            ? `${there.by} has given ${student.name} a plan for this week meanwhile: look at it first.`
            : 'The plan of this week was taken out meanwhile: look at the file first.',
          data: there ? planDto(there) : null,
        })
      const id = uuid()
      await practice.add({ id, studentId, userId, ...plan, recordedAt: now, removedAt: null })
      return read(id)
    },

    async setRemoved(id: string, isRemoved: boolean): Promise<Plan> {
      if (!(await practice.setRemoved(id, isRemoved ? now : null))) throw new ProblemError('not_found')
      return read(id)
    },

    async practiceOf(studentId: string): Promise<PracticeEntry[]> {
      await existingStudent(studentId)
      return doneBy(studentId)
    },

    async say(
      studentId: string,
      { entries }: HandlerInput<'practice.say'>['body'],
    ): Promise<PracticeEntry[]> {
      entries.forEach(({ on }, index) => insistOnDay(now, on, `entries.${index}.on`))
      await existingStudent(studentId)
      const book = await bookFor(entries)
      entries.forEach(({ exerciseId }, index) =>
        insistOnExercise(book, exerciseId, `entries.${index}.exerciseId`),
      )
      await practice.say(
        entries.map(({ on, ...said }) => ({
          id: uuid(),
          studentId,
          userId,
          ...said,
          practisedOn: on,
          recordedAt: now,
        })),
      )
      return doneBy(studentId)
    },

    /** What followed in the files of a page of students, this half year. */
    async mends(page: HandlerInput<'practice.mends'>['query']): Promise<Answer<'practice.mends'>> {
      const { timeZone } = await studioSettings()
      const from = dayOf(dayNumber(isoDay(now, timeZone)) - LOOKED_BACK_DAYS)
      const { total, plans } = await practice.planned(from, page)
      const ids = [...plans.keys()]
      if (ids.length === 0) return { total, counts: [] }
      const since = new Date(from)
      const [log, checks, rounds] = await Promise.all([
        practice.doneBy(ids, from),
        checkRepository(store).ofStudents(ids, since),
        setupRepository(store).rounds.ofStudents(ids, since),
      ])
      const of = <Row extends { studentId: string }>(rows: readonly Row[]) => {
        const byStudent = group(rows, (row) => row.studentId)
        return (id: string) => byStudent.get(id) ?? []
      }
      const [logOf, checksOf, roundsOf] = [of(log), of(checks), of(rounds)]
      const followed = [...plans].flatMap(([id, own]) =>
        followedBy({
          plans: own,
          log: logOf(id).map(({ exerciseId, practisedOn }) => ({ exerciseId, on: practisedOn })),
          checks: checksOf(id).map((row) => checkForPlan(row, isoDay(row.takenAt, timeZone))),
          setup: roundsOf(id).flatMap(({ takenAt, answers }) =>
            answers.map(({ itemId, answer }) => ({ itemId, answer, on: isoDay(takenAt, timeZone) })),
          ),
        }),
      )
      return { total, counts: mendCounts(followed) }
    },

    async ofClass(query: HandlerInput<'practice.class'>['query']): Promise<Answer<'practice.class'>> {
      const days = dayNumber(query.to) - dayNumber(query.from)
      if (days < 0) throw fieldProblem('to', 'The last day comes before the first: swap them.')
      if (days > LONGEST_STRETCH_DAYS)
        throw fieldProblem('to', `Look at ${LONGEST_STRETCH_DAYS} days at once at most.`)
      const { total, rows } = await practice.ofClass(query)
      const ids = rows.map(({ studentId }) => studentId)
      const [students, plans, done] = await Promise.all([
        studentReads(call).ofIds(ids),
        practice.ofIds(rows.map(({ planId }) => planId)),
        practice.doneBy(ids, query.from),
      ])
      return {
        total,
        rows: students.map((student) => {
          const plan = planDto(plans.find(({ studentId }) => studentId === student.id)!)
          const own = done.filter((row) => row.studentId === student.id && row.practisedOn >= plan.startsOn)
          return { student, plan, done: own.map(entryDto) }
        }),
      }
    },
  }
}

function insistOnExercise(book: ExerciseBook, id: ExerciseId, path: string): void {
  if (!isPracticeId(id) && !book.own(id))
    throw fieldProblem(path, 'The studio has no such exercise: leave it out.')
}

/** Every card is of the week, once a day, and of this hand. */
function insistOnWeek(
  { startsOn, cards }: Pick<Draft, 'startsOn' | 'cards'>,
  family: FamilyId,
  book: ExerciseBook,
): void {
  const last = dayOf(dayNumber(startsOn) + WEEK_DAYS - 1)
  const seen = new Set<string>()
  cards.forEach(({ on, exerciseId }, index) => {
    if (on < startsOn || on > last)
      throw fieldProblem(`cards.${index}.on`, `Choose a day of the week from ${startsOn} to ${last}.`)
    insistOnExercise(book, exerciseId, `cards.${index}.exerciseId`)
    if (!isPracticedOn(book.of(exerciseId), family))
      throw fieldProblem(`cards.${index}.exerciseId`, `The ${family} has no such exercise: leave it out.`)
    const once = `${on} ${exerciseId}`
    if (seen.has(once)) throw fieldProblem(`cards.${index}`, 'This exercise is there twice on one day.')
    seen.add(once)
  })
}
