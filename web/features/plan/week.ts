import { dayNumber, dayOf } from '#core'

const WEEK = 7
/** Sunday is 0; 1 January 1970 was a Thursday. */
const EPOCH_WEEKDAY = 4

export function weekdayOf(day: string): number {
  return (((dayNumber(day) + EPOCH_WEEKDAY) % WEEK) + WEEK) % WEEK
}

/** The first day of the week in which a day lies, where weeks begin on a weekday: the lesson’s. */
export function weekStart(day: string, begins: number): string {
  return dayOf(dayNumber(day) - ((weekdayOf(day) - begins + WEEK) % WEEK))
}

/** The seven days of a week. */
export function daysOfWeek(startsOn: string): string[] {
  return Array.from({ length: WEEK }, (_, by) => dayOf(dayNumber(startsOn) + by))
}

export function weekBefore(startsOn: string): string {
  return dayOf(dayNumber(startsOn) - WEEK)
}
