import { expect, it } from 'vitest'
import { dayNumber, dayOf, daysBetween, isoDay } from './index'

it('counts days from 1970 and back, over leap days and changes of clocks', () => {
  expect(dayNumber('1970-01-01')).toBe(0)
  expect(dayNumber('2000-03-01') - dayNumber('2000-02-28')).toBe(2) // 2000 was a leap year
  expect(dayNumber('1900-03-01') - dayNumber('1900-02-28')).toBe(1) // 1900 was not (Gregorian calendar)
  expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2)
  for (const iso of ['1969-12-31', '2024-02-29', '2026-11-28']) expect(dayOf(dayNumber(iso))).toBe(iso)
  expect(dayOf(dayNumber('2026-11-28') + 0.9)).toBe('2026-11-28')
  expect(dayNumber('yesterday')).toBeNaN()
})

it('takes the day of whoever looks at the clock', () => {
  expect(isoDay(new Date(2026, 0, 5, 23, 59))).toBe('2026-01-05')
})
