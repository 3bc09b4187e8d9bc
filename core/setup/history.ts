import { daysBetween } from '../calendar'
import type { AnsweredItem, SetupAnswer } from './answers'

/** A round as it was kept. */
export interface SetupRound {
  /** ISO date. */
  readonly takenOn: string
  readonly answers: readonly AnsweredItem[]
}

/** How an item stands: its newest answer, and since when it has been so without a break. */
export interface ItemStanding {
  readonly itemId: string
  readonly answer: SetupAnswer
  readonly measured: number | null
  /** ISO dates. */
  readonly since: string
  readonly seenOn: string
}

/** How every item that was ever asked stands after these rounds, oldest first. */
export function setupNow(rounds: readonly SetupRound[]): ItemStanding[] {
  const now = new Map<string, ItemStanding>()
  for (const { takenOn, answers } of rounds)
    for (const { itemId, answer, measured } of answers) {
      const before = now.get(itemId)
      const since = before?.answer === answer ? before.since : takenOn
      now.set(itemId, { itemId, answer, measured, since, seenOn: takenOn })
    }
  return [...now.values()]
}

/** A thing that is nearly right for so long is no longer on its way. Common practice, no source. */
export const NEARLY_FOR_DAYS = 42

/** What has been “nearly” for six weeks or more on the day `today`, the longest first. */
export function longNearly(today: string, standings: readonly ItemStanding[]): ItemStanding[] {
  return standings
    .filter(({ answer, since }) => answer === 'nearly' && daysBetween(since, today) >= NEARLY_FOR_DAYS)
    .sort((a, b) => a.since.localeCompare(b.since))
}
