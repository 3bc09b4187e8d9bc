import { sum } from 'd3-array'
import { count } from './numbers'

/** What came of a week, without a word of what did not. */
export function practisedSum(
  entries: readonly { readonly on: string; readonly minutes: number | null }[],
): string {
  const days = new Set(entries.map(({ on }) => on)).size
  if (days === 0) return 'Nothing is written down of this week.'
  const minutes = sum(entries, (entry) => entry.minutes ?? 0)
  return `${count(days, 'day')} practised${minutes > 0 ? `, ${count(minutes, 'minute')} in all` : ''}.`
}
