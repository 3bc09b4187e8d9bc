import { randomUniform } from 'd3-random'
import { v7 as uuid } from 'uuid'
import {
  checkForPlan,
  dayNumber,
  dayOf as isoDayOf,
  familyOf,
  faultsOf,
  planWeek,
  schoolsOf,
  seededSource,
  setupNow,
  type PlanFacts,
  type Practised,
} from '#core'
import type { PracticeEntryRow, PracticePlanRow } from '../db/rows'
import { checkService } from '../features/checks/service'
import { masteryService } from '../features/mastery/service'
import { setupService } from '../features/setup/service'
import { DEMO_EXERCISES } from './exercises'
import { DEMO_SETUPS } from './setups'
import { dayOf, seedOf, type CallAt, type WeeksAgo } from './when'
import type { DemoStudent } from './roster'

/** So long ago the first plan was given. */
const FIRST_WEEK = 10
/** Practised every day but one, and in the lesson. */
const WEEKDAYS = [6, 1, 2, 3, 4, 5]
const MINUTES = { child: 15, grown: 25 }
const GROWN_FROM = 12
/** The laziest and the most eager: this part of their days. */
const DILIGENCE = [0.35, 0.95] as const
/** How much of diligence is chance. */
const CHANCE = 0.2
/** So many of their sheets are in the file; the others’ are ticked off in the next lesson. */
const TICKED = 0.7
const PIECES = ['Ferry Steps', 'Lantern Round', 'Low Tide']

/**
 * A term of plans, each made from what the file said on its day, and what was done of them: every student practises a part of the days,
 * the more the more of their faults went in the term. The last lesson’s plan waits to be ticked off, or the next to be given.
 */
export async function planTerm(
  demo: DemoStudent,
  studentId: string,
  instrumentId: string | null,
  callAt: CallAt,
  weeksAgo: WeeksAgo,
): Promise<void> {
  const uniform = randomUniform.source(seededSource(seedOf(demo.name) + 5))(0, 1)
  // Whose faults are gone by now has practised the most, a little by chance: the record agrees with the hands that were checked.
  const mended = Math.min(1, Math.max(0, 1 - demo.left + CHANCE * (uniform() - 0.5)))
  const diligence = DILIGENCE[0] + (DILIGENCE[1] - DILIGENCE[0]) * mended
  const now = callAt(weeksAgo(0))
  const checks = await checkService(now).list(studentId, { offset: 0, limit: 100 })
  const rounds = await setupService(now).list(studentId)
  const marks = await masteryService(now).list(studentId)
  // Of most the last week is ticked off already.
  const isTicked = uniform() < TICKED
  const log: Practised[] = []
  const plans: Omit<PracticePlanRow, 'studioId'>[] = []
  const entries: Omit<PracticeEntryRow, 'studioId'>[] = []
  const userId = now.signedIn.session.user.id
  for (let weeks = FIRST_WEEK; weeks >= 1; weeks--) {
    const startsOn = dayOf(weeksAgo(weeks))
    const facts: PlanFacts = {
      familyId: demo.family,
      strings: familyOf(demo.family).tuning.length,
      age: demo.age,
      schools: schoolsOf({}, DEMO_SETUPS[demo.name]?.schools ?? {}),
      isBeginner: true,
      pains: 0,
      closedGates: [],
      ...faultsOf(
        checks
          .filter(({ takenAt }) => takenAt.slice(0, 10) <= startsOn)
          .map((check) => checkForPlan(check, check.takenAt.slice(0, 10))),
      ),
      setup: setupNow(
        rounds
          .filter(({ takenAt }) => takenAt.slice(0, 10) <= startsOn)
          .map(({ takenAt, answers }) => ({ takenOn: takenAt.slice(0, 10), answers }))
          .reverse(),
      ),
      learning: marks
        .filter(({ kind, state }) => kind === 'pattern' && state === 'learning')
        .map(({ item }) => item),
      pieces: [PIECES[(FIRST_WEEK - weeks) % PIECES.length]!],
      log,
      asked: [],
      own: DEMO_EXERCISES,
    }
    const minutesADay = demo.age < GROWN_FROM ? MINUTES.child : MINUTES.grown
    const days = [0, 1, 2, 3, 4, 5, 6]
      .map((by) => isoDayOf(dayNumber(startsOn) + by))
      .filter((_, by) => WEEKDAYS.includes((by + WEEKDAYS[0]!) % 7))
    const { cards } = planWeek(startsOn, facts, { days, minutesADay })
    if (cards.length === 0) continue
    plans.push({
      id: uuid(),
      studentId,
      userId,
      startsOn,
      family: demo.family,
      instrumentId,
      minutesADay,
      weekdays: WEEKDAYS,
      cards: [...cards],
      pieces: [...facts.pieces],
      recordedAt: weeksAgo(weeks),
      removedAt: null,
    })
    const done = new Set(days.filter(() => uniform() < diligence))
    const said = cards.filter(({ on }) => (weeks > 1 || isTicked) && done.has(on))
    log.push(...said.map(({ exerciseId, on }) => ({ exerciseId, on })))
    entries.push(
      ...said.map(({ exerciseId, on, minutes }) => ({
        id: uuid(),
        studentId,
        userId,
        exerciseId,
        practisedOn: on,
        isDone: true,
        minutes,
        times: null,
        recordedAt: weeksAgo(weeks - 1),
      })),
    )
  }
  // In two statements: a demo that teachers wait for is not given plan by plan.
  await now.store.insert(now.store.models.practicePlan, plans)
  await now.store.insert(now.store.models.practiceEntry, entries)
}
