import solver, { type Model } from 'javascript-lp-solver'
import { describe, expect, it } from 'vitest'
import { dayNumber, dayOf } from '../calendar'
import { minutesOf, planWeek, PRACTICE, PRACTICE_IDS, type PracticeId } from './index'
import { someFacts } from './testing'
import { wishesOf } from './wishes'

const TODAY = '2026-12-05'
const DAYS = [0, 1, 2, 4, 5].map((by) => dayOf(dayNumber(TODAY) + by))
/** A review loses so much of its worth a day: decision 0052. */
const LATE = 0.1

/**
 * The objective of decision 0052 written as a program of whole numbers, for a solver that knows nothing of practice: a variable a
 * wish and a day, minutes a day, a review once. Everything is known to the student, so that nothing new has to wait.
 */
function byProgram(facts: ReturnType<typeof someFacts>, minutesADay: number): number {
  const model = {
    optimize: 'worth',
    opType: 'max',
    constraints: Object.fromEntries(DAYS.map((day) => [day, { max: minutesADay }])) as Record<
      string,
      { max: number }
    >,
    variables: {} as Record<string, Record<string, number>>,
    binaries: {} as Record<string, 1>,
  }
  for (const { exerciseId, worth, onceFrom } of wishesOf(TODAY, facts).wishes) {
    const first = DAYS.find((day) => onceFrom === undefined || day >= onceFrom)
    if (onceFrom !== undefined) model.constraints[exerciseId] = { max: 1 }
    for (const day of DAYS) {
      if (first === undefined || day < first) continue
      const late = onceFrom === undefined ? 0 : LATE * (dayNumber(day) - dayNumber(first))
      const name = `${exerciseId} ${day}`
      model.variables[name] = {
        worth: worth * (1 - late),
        [day]: minutesOf(PRACTICE[exerciseId as PracticeId], facts.strings),
      }
      if (onceFrom !== undefined) model.variables[name][exerciseId] = 1
      model.binaries[name] = 1
    }
  }
  return (solver.Solve(model as unknown as Model) as { result: number }).result
}

describe('a week', () => {
  it('is worth as much as an integer program makes of it (javascript-lp-solver), for files that it can write down', () => {
    let [held, withReview] = [0, 0]
    for (let seed = 0; seed < 150; seed++) {
      const log = PRACTICE_IDS.map((exerciseId) => ({ exerciseId, on: '2026-12-01' }))
      const facts = { ...someFacts(seed, TODAY), age: 40, log }
      const { wishes } = wishesOf(TODAY, facts)
      const daily = wishes.filter(({ onceFrom, reason }) => onceFrom === undefined && reason.code !== 'piece')
      const reviews = wishes.length - daily.length
      // A few exercises at most are planned; the program has no such rule.
      if (daily.length > 5 || reviews > 3 || wishes.length === 0) continue
      const minutesADay = 3 + (seed % 12)
      const week = planWeek(TODAY, facts, { days: DAYS, minutesADay })
      expect(week.worth, `seed ${seed}`).toBeCloseTo(byProgram(facts, minutesADay), 6)
      held++
      withReview += Number(wishes.some(({ onceFrom }) => onceFrom !== undefined && onceFrom <= DAYS.at(-1)!))
    }
    expect(held).toBeGreaterThan(40)
    expect(withReview).toBeGreaterThan(10)
  })
})
