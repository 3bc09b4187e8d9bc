const MS_PER_DAY = 86_400_000

/** The day of an instant in the time zone of whoever asks, as an ISO date: `2026-11-28`. */
export function isoDay(at: Date): string {
  const pad = (n: number) => String(n).padStart(2, '0')
  return `${at.getFullYear()}-${pad(at.getMonth() + 1)}-${pad(at.getDate())}`
}

/** Days since 1 January 1970 of an ISO date. NaN where the text is none. */
export function dayNumber(iso: string): number {
  return Date.parse(`${iso}T00:00:00Z`) / MS_PER_DAY
}

/** The ISO date of a count of days; inverse of {@link dayNumber}. Parts of a day are cut off. */
export function dayOf(number: number): string {
  return new Date(Math.floor(number) * MS_PER_DAY).toISOString().slice(0, 10)
}

/** Whole days from one ISO date to a later one. */
export function daysBetween(earlier: string, later: string): number {
  return dayNumber(later) - dayNumber(earlier)
}
