import { expect, it } from 'vitest'
import type { PastCheck, Plan, PracticeEntry } from '#contracts'
import { frameFinding } from '../../../core/practice/testing'
import { practiceEffects, practiceWeeks } from './practice'

const DAY_MS = 86_400_000
const dayAfter = (days: number) => new Date(Date.parse('2026-09-05T12:00:00Z') + days * DAY_MS)
const entry = (days: number, exerciseId = 'find_elbow', minutes: number | null = 2) =>
  ({ exerciseId, on: dayAfter(days).toISOString().slice(0, 10), minutes }) as PracticeEntry
const finding = frameFinding(-4)
const plan = {
  cards: [{ exerciseId: 'find_elbow', reason: { code: 'finding', finding, on: '2026-09-05' } }],
} as unknown as Plan
const check = (days: number, frameMm: number | null) =>
  ({ takenAt: dayAfter(days).toISOString(), summary: { frameMm } }) as PastCheck

it('counts minutes and days by weeks, and leaves out weeks without', () => {
  const weeks = practiceWeeks([entry(0), entry(0, 'shake_out', 5), entry(2), entry(15, 'shake_out', null)])
  expect(weeks.map(({ minutes, days }) => [minutes, days])).toEqual([
    [9, 2],
    [0, 1],
  ])
})

it('follows the number in which a finding shows, from the first day of practice, whatever its sign', () => {
  const checks = [0, 7, 14, 21, 28].map((days, i) => check(days, -5 + i))
  const [one] = practiceEffects(checks, [plan], [entry(1), entry(8)])
  expect(one).toMatchObject({ exerciseId: 'find_elbow', unit: 'mm', times: 2, since: '2026-09-06' })
  expect(one?.effect).toMatchObject({ code: 'changed' })
  // A millimetre a week, over 27 or 28 days by where the studio is.
  if (one?.effect.code === 'changed') expect(Math.abs(one.effect.change + 27.5 / 7)).toBeLessThan(0.08)
  // Never practised, or without a number in any check: nothing is said of it.
  expect(practiceEffects(checks, [plan], [])).toEqual([])
  expect(practiceEffects([check(0, null)], [plan], [entry(1)])[0]?.effect).toEqual({
    code: 'too_early',
    have: 0,
    need: 3,
  })
})
