import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Student } from '#contracts'
import { A_STUDENT, fakeServer, freshStores, lists, signedIn } from '../testing'
import { effectScope } from 'vue'
import { showAs, studioDay } from '../words/shown'
import { isoDay } from '#core'
import { shortDay } from '../words/dates'
import { dueOf, useLessonDay } from './useLessonDay'
import { useSettings } from './settings'
import { useToday } from './useToday'

const WEDNESDAY = new Date(2026, 10, 25, 8, 30)
const SATURDAY = new Date(2026, 10, 28, 8, 30)

function student(name: string, weekday: number | null, time = '09:00', part: Partial<Student> = {}): Student {
  return { ...A_STUDENT, id: name, name, lesson: weekday === null ? null : { weekday, time }, ...part }
}
/** The lessons of a studio with these students, as its server tells them. */
async function dayOf(today: Date, ...students: Student[]) {
  const sent = fakeServer(lists({ students }))
  const day = useLessonDay(today)
  await new Promise((resolve) => setTimeout(resolve, 0))
  return { ...day, sent }
}

beforeEach(() => {
  freshStores()
  signedIn()
})

describe('the lesson day', () => {
  it('is today when there are lessons today', async () => {
    const { rows, isToday, sent } = await dayOf(SATURDAY, student('early', 6), student('late', 6, '16:00'))
    expect(sent[0]!.path).toMatch(/\/lessons\?from=6&limit=40$/)
    expect(isToday.value).toBe(true)
    expect(rows.value.map((row) => row.student.name)).toEqual(['early', 'late'])
  })

  it('is the next day that has lessons otherwise', async () => {
    const { day, rows, isToday } = await dayOf(WEDNESDAY, student('saturday', 6))
    expect([isToday.value, day.value.getDate()]).toEqual([false, 28])
    expect(rows.value.map((row) => row.student.name)).toEqual(['saturday'])
  })

  it('wakes to the new day on a page that was left open, in the time zone of the studio', async () => {
    vi.useFakeTimers({ now: new Date('2026-11-28T07:58:00Z') })
    try {
      showAs({ lengthUnit: 'mm', noteNames: 'letters', timeZone: 'America/Los_Angeles' })
      const scope = effectScope()
      const today = scope.run(() => useToday())!
      expect(isoDay(today.value)).toBe('2026-11-27')
      await vi.advanceTimersByTimeAsync(4 * 60_000)
      expect(studioDay()).toBe('2026-11-28')
      expect([today.value.getDate(), today.value.getDay()]).toEqual([28, 6])
      scope.stop()
    } finally {
      showAs({ lengthUnit: 'mm', noteNames: 'letters' })
      vi.useRealTimers()
    }
  })

  it('is of the studio’s day in a browser on the other side of the world', async () => {
    const before = process.env['TZ']
    try {
      process.env['TZ'] = 'Pacific/Auckland'
      expect(new Date('2026-11-28T12:00:00Z').getDate()).toBe(29)
      signedIn('hester', 'fifths', { timeZone: 'America/Los_Angeles' })
      useSettings()
      vi.useFakeTimers({
        now: new Date('2026-11-29T02:00:00Z'),
        toFake: ['Date', 'setInterval', 'clearInterval'],
      })
      // There it is Saturday evening; here Sunday afternoon.
      const scope = effectScope()
      const today = scope.run(() => useToday())!
      // Whose next check falls due on that very Saturday.
      const on = (days: number) => new Date(Date.UTC(2026, 10, 28 - days, 20)).toISOString()
      const checkedAgo = (days: number) =>
        student('checked', 6, '09:00', { lastCheck: { ...A_STUDENT.lastCheck!, takenAt: on(days) } })
      const dueOnSaturday = Array.from({ length: 90 }, (_, days) => checkedAgo(days)).find(
        (one) => dueOf(one, '2026-11-28').length > dueOf(one, '2026-11-27').length,
      )!
      const { rows, isToday, day } = await dayOf(today.value, dueOnSaturday)
      expect([isToday.value, isoDay(day.value)]).toEqual([true, '2026-11-28'])
      expect(rows.value.map((row) => row.due)).toEqual([dueOf(dueOnSaturday, '2026-11-28')])
      expect(shortDay('2026-11-29T01:59:00Z')).toBe('28 Nov 2026')
      scope.stop()
    } finally {
      vi.useRealTimers()
      if (before === undefined) delete process.env['TZ']
      else process.env['TZ'] = before
      showAs({ lengthUnit: 'mm', noteNames: 'letters' })
    }
  })

  it('of a very long day has the first lessons at once, and the rest part by part', async () => {
    const many = Array.from({ length: 300 }, (_, i) => student(`no. ${i}`, 6))
    const { rows, sent } = await dayOf(SATURDAY, ...many)
    await vi.waitFor(() => expect(rows.value).toHaveLength(300))
    expect(rows.value.map((row) => row.student.name)).toEqual(many.map((s) => s.name))
    expect(sent.map((s) => new URL(s.path, 'http://x').search)).toEqual([
      '?from=6&limit=40',
      '?from=6&offset=40&limit=200',
      '?from=6&offset=240&limit=200',
    ])
  })

  it('is empty where nobody has a day', async () => {
    const { rows, isKnown } = await dayOf(WEDNESDAY, student('no day', null))
    expect([rows.value, isKnown.value]).toEqual([[], true])
  })

  it('counts what is due on that day, not on the day it is looked at', async () => {
    const taken = (takenAt: string) =>
      ({
        id: 'c',
        takenAt,
        exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
        verdict: { outcome: 'string_out_of_tune', cents: 9 },
        decision: null,
      }) as const
    const { rows } = await dayOf(
      WEDNESDAY,
      student('checked 29 days before Saturday', 6, '09:00', {
        lastCheck: taken('2026-10-30T09:00:00.000Z'),
      }),
      student('never checked', 6, '09:20'),
      student('without instrument', 6, '09:40', { instrument: null }),
    )
    expect(rows.value.map((row) => row.due.map((due) => due.code))).toEqual([
      ['check_hand'],
      ['first_check'],
      ['no_instrument'],
    ])
  })
})
