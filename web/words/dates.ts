import { shown, studioDay } from './shown'

/** `Saturday 28 November` */
export function longDay(date: Date): string {
  return date.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })
}

/** Made once: a list of a thousand days is written with it. A day is a day in any zone. */
const SHORT = new Intl.DateTimeFormat('en-GB', {
  day: 'numeric',
  month: 'short',
  year: 'numeric',
  timeZone: 'UTC',
})
const timeIn = (timeZone: string | null) => (timeZone === null ? {} : { timeZone })

/** `28 Nov 2026`, of an instant or an ISO day. */
export function shortDay(iso: string): string {
  const day = iso.length === 10 ? iso : studioDay(new Date(iso))
  return SHORT.format(new Date(`${day}T12:00:00Z`))
}

/** `28 Nov 2026, 09:41`, of an instant. */
export function dayAndTime(iso: string): string {
  return `${shortDay(iso)}, ${clockTime(iso)}`
}

/** `09:41`, of an instant. */
export function clockTime(iso: string): string {
  return new Date(iso).toLocaleTimeString('en-GB', {
    hour: '2-digit',
    minute: '2-digit',
    ...timeIn(shown.timeZone),
  })
}

const WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'short', timeZone: 'UTC' })

/** `Sat`, of an ISO day. */
export function dayName(day: string): string {
  return WEEKDAY.format(new Date(`${day}T12:00:00Z`))
}

/** `28`, of an ISO day. */
export function dayNumeral(day: string): string {
  return String(Number(day.slice(8)))
}

const LONG_WEEKDAY = new Intl.DateTimeFormat('en-GB', { weekday: 'long', timeZone: 'UTC' })

/** `Saturday`, of an ISO day. */
export function longDayName(day: string): string {
  return LONG_WEEKDAY.format(new Date(`${day}T12:00:00Z`))
}
