import { dayNumber, dayOf } from '#core'

const WEEK = 7
/** Sunday is 0; 1 January 1970 was a Thursday. */
const EPOCH_WEEKDAY = 4

export function weekdayOf(day: string): number {
  return (((dayNumber(day) + EPOCH_WEEKDAY) % WEEK) + WEEK) % WEEK
}

/** Whether a day is one of the seven from this one on. */
export function isWithinWeek(startsOn: string, day: string): boolean {
  return startsOn <= day && dayNumber(day) < dayNumber(startsOn) + WEEK
}

/** The seven days of a week. */
export function daysOfWeek(startsOn: string): string[] {
  return Array.from({ length: WEEK }, (_, by) => dayOf(dayNumber(startsOn) + by))
}
