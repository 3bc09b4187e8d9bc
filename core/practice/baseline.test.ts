import { expect, it } from 'vitest'
import { dayNumber, dayOf } from '../calendar'
import { FAMILY_IDS, familyOf } from '../instrument'
import {
  daysUntilReview,
  minutesOf,
  mostMinutes,
  planWeek,
  PRACTICE,
  PRACTICE_IDS,
  type PlannedCard,
} from './index'
import { someFacts } from './testing'

/**
 * Weeks of files that say all sorts of things, with their worth: whoever changes a worth, a rule or minutes sees in `baseline.txt` what
 * moves. Whether a week is the best of its objective is asked in `optimum.test.ts`, and whether the rules are kept in `plan.test.ts`.
 */
const TODAY = '2026-12-05'

function written(cards: readonly PlannedCard[]): string {
  const ids = [...new Set(cards.map(({ exerciseId }) => exerciseId))]
  return ids
    .map((id) => {
      const own = cards.filter(({ exerciseId }) => exerciseId === id)
      const days = own.map(({ on }) => dayNumber(on) - dayNumber(TODAY)).join('')
      return `${id} ${own[0]!.minutes}' ${days} (${own[0]!.reason.code})`
    })
    .join(', ')
}

it('plans every week as it did before', async () => {
  const lines: string[] = []
  for (let seed = 0; seed < 120; seed++) {
    const facts = someFacts(seed, TODAY)
    const days = [0, 1, 2, 4, 5, 6].map((by) => dayOf(dayNumber(TODAY) + by)).slice(0, 2 + (seed % 5))
    const minutesADay = 4 + (seed % 30)
    const { cards, leftOut, worth } = planWeek(TODAY, facts, { days, minutesADay })
    const left = leftOut.map(({ exerciseId, why }) => `${exerciseId} (${why.code})`).join(', ')
    lines.push(
      `${seed}. ${facts.familyId}, ${facts.age ?? '?'}, ${days.length} days of ${minutesADay}: ${written(cards)}; worth ${worth.toFixed(3)}; not ${left}`,
    )
  }
  for (const family of FAMILY_IDS) {
    const strings = familyOf(family).tuning.length
    lines.push(
      `${family}: ${PRACTICE_IDS.map((id) => `${id} ${minutesOf(PRACTICE[id], strings)}`).join(', ')}`,
    )
  }
  lines.push(`most minutes: ${[4, 6, 8, 10, 12, 13].map((age) => `${age} ${mostMinutes(age)}`).join(', ')}`)
  lines.push(`reviews: ${[1, 2, 3, 4, 5, 6].map(daysUntilReview).join(' ')}`)
  await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('baseline.txt')
})
