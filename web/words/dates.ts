/** `Saturday 28 November` */
export function longDay(date: Date): string {
  return date.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })
}

/** Made once: a list of a thousand days is written with it. */
const SHORT = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

/** `28 Nov 2026`, of an instant or an ISO day. */
export function shortDay(iso: string): string {
  const date = iso.length === 10 ? new Date(`${iso}T12:00:00`) : new Date(iso)
  return SHORT.format(date)
}

/** `28 Nov 2026, 09:41`, of an instant. */
export function dayAndTime(iso: string): string {
  const time = new Date(iso).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
  return `${shortDay(iso)}, ${time}`
}
