import { dayNumber, isoDay } from '#core'
import { fieldProblem } from './problem-error'

/** Somewhere on earth it is tomorrow already. */
const AHEAD_DAYS = 1
/** Older than any hand or tape that a studio still keeps; a slip of the year lies beyond. Common practice, no source. */
const LONGEST_AGO_DAYS = 25 * 365.25

/** Refuses a day (ISO date) that has not come yet, or that nothing here can have happened on. */
export function insistOnDay(now: Date, day: string, path: string): void {
  const ago = dayNumber(isoDay(now)) - dayNumber(day)
  if (ago < -AHEAD_DAYS) throw fieldProblem(path, `${day} has not come yet: look at the year.`)
  if (ago > LONGEST_AGO_DAYS) throw fieldProblem(path, `${day} is more than 25 years ago: look at the year.`)
}
