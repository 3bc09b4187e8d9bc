const MS_PER_DAY = 86_400_000

/**
 * The day of an instant, as an ISO date: `2026-11-28`. In a time zone by its name in the tz database (`Pacific/Auckland`), or in that of
 * the machine. Throws a RangeError where no zone is called so.
 */
export function isoDay(at: Date, timeZone?: string | null): string {
  const pad = (n: number, digits = 2) => String(n).padStart(digits, '0')
  if (timeZone) {
    const parts = new Map(
      formatIn(timeZone)
        .formatToParts(at)
        .map(({ type, value }) => [type, Number(value)]),
    )
    return `${pad(parts.get('year')!, 4)}-${pad(parts.get('month')!)}-${pad(parts.get('day')!)}`
  }
  return `${at.getFullYear()}-${pad(at.getMonth() + 1)}-${pad(at.getDate())}`
}

/** Made once each: a list of a thousand checks is told in days. */
const formats = new Map<string, Intl.DateTimeFormat>()
function formatIn(timeZone: string): Intl.DateTimeFormat {
  const known = formats.get(timeZone)
  if (known) return known
  const made = new Intl.DateTimeFormat('en-US', {
    timeZone,
    year: 'numeric',
    month: 'numeric',
    day: 'numeric',
  })
  formats.set(timeZone, made)
  return made
}

/** Whether the tz database of this machine knows a zone by that name. */
export function isTimeZone(name: string): boolean {
  try {
    formatIn(name)
    return name !== ''
  } catch {
    return false
  }
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

/** Whether a text is a day as `2026-11-28`, one that the calendar has. */
export function isIsoDay(text: string): boolean {
  return (
    /^\d{4}-\d{2}-\d{2}$/.test(text) && Number.isFinite(dayNumber(text)) && dayOf(dayNumber(text)) === text
  )
}
