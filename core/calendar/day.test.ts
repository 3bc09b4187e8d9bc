import { expect, it } from 'vitest'
import { dayNumber, dayOf, daysBetween, isoDay, isTimeZone } from './index'

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

// Offsets of the tz database, from memory: Los Angeles −8 and in summer −7, Auckland +12 and in summer +13, Kathmandu +5:45.
it.each([
  ['2026-11-30T04:30:00Z', 'America/Los_Angeles', '2026-11-29'],
  ['2026-11-30T07:59:59Z', 'America/Los_Angeles', '2026-11-29'],
  ['2026-11-30T08:00:00Z', 'America/Los_Angeles', '2026-11-30'],
  // Clocks went back at nine that morning, UTC: the day began at seven and ended at eight.
  ['2026-11-01T07:00:00Z', 'America/Los_Angeles', '2026-11-01'],
  ['2026-11-02T07:59:59Z', 'America/Los_Angeles', '2026-11-01'],
  ['2026-11-28T10:59:59Z', 'Pacific/Auckland', '2026-11-28'],
  ['2026-11-28T11:00:00Z', 'Pacific/Auckland', '2026-11-29'],
  ['2026-07-01T12:00:00Z', 'Pacific/Auckland', '2026-07-02'],
  ['2026-01-01T18:15:00Z', 'Asia/Kathmandu', '2026-01-02'],
  ['2026-12-31T23:59:59Z', 'UTC', '2026-12-31'],
])('takes the day of a zone: %s in %s is %s', (at, zone, day) => {
  expect(isoDay(new Date(at), zone)).toBe(day)
})

it('knows a time zone by its name, and refuses what is none', () => {
  expect(['Pacific/Auckland', 'UTC', 'Port Ellery', '', 'PST8PDT; DROP'].map(isTimeZone)).toEqual([
    true,
    true,
    false,
    false,
    false,
  ])
})
