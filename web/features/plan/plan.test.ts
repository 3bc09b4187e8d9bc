import ICAL from 'ical.js'
import { describe, expect, it } from 'vitest'
import type { Plan } from '#contracts'
import { leftOutSentences, reasonSentence, effectSentence } from '../../words/plan'
import { practisedSum } from '../../words/plan-log'
import { entryOf } from './exact'
import { planCalendar } from './plan-calendar'
import { daysOfWeek, isWithinWeek, weekdayOf } from './week'

const reason = { code: 'setup', itemId: 'tension', answer: 'no', on: '2026-11-21' } as const
const card = (on: string, exerciseId: Plan['cards'][number]['exerciseId'], minutes: number) => ({
  exerciseId,
  on,
  minutes,
  reason,
  isFixed: false,
})
const PLAN: Plan = {
  id: '00000000-0000-7000-8000-000000000001',
  studentId: '00000000-0000-7000-8000-000000000002',
  startsOn: '2026-11-28',
  family: 'violin',
  instrumentId: null,
  minutesADay: 15,
  weekdays: [6, 0],
  cards: [
    card('2026-11-28', 'shake_out', 5),
    card('2026-11-28', 'one_finger', 2),
    card('2026-12-31', 'shake_out', 5),
  ],
  pieces: [],
  by: 'Hester Lowe',
  at: '2026-11-28T09:30:00.000Z',
}

describe('a week', () => {
  it('has seven days over the end of a month, and knows which weekday each is', () => {
    expect(daysOfWeek('2026-11-28')).toEqual([
      ...['2026-11-28', '2026-11-29', '2026-11-30'],
      ...['2026-12-01', '2026-12-02', '2026-12-03', '2026-12-04'],
    ])
    // 28 November 2026 is a Saturday, 29 February 2028 a Tuesday (ISO 8601 calendar).
    expect([weekdayOf('2026-11-28'), weekdayOf('2028-02-29')]).toEqual([6, 2])
    expect(isWithinWeek('2026-11-28', '2026-12-04')).toBe(true)
    expect(isWithinWeek('2026-11-28', '2026-12-05')).toBe(false)
    expect(isWithinWeek('2026-11-28', '2026-11-27')).toBe(false)
  })
})

describe('the days of a plan for a calendar', () => {
  it('are read by another library as whole days, each with what it asks, and without a name', () => {
    const text = planCalendar([PLAN])
    const calendar = new ICAL.Component(ICAL.parse(text) as unknown[])
    const events = calendar.getAllSubcomponents('vevent').map((one) => new ICAL.Event(one))
    expect(
      events.map(({ startDate, endDate, summary }) => [
        startDate.toString(),
        startDate.isDate,
        endDate.toString(),
        summary,
      ]),
    ).toEqual([
      ['2026-11-28', true, '2026-11-29', 'Practice, 7 minutes'],
      ['2026-12-31', true, '2027-01-01', 'Practice, 5 minutes'],
    ])
    expect(events[0]?.description).toBe('Shake out, 5 min\nOne finger, 2 min')
    expect(new Set(events.map(({ uid }) => uid)).size).toBe(2)
    expect(calendar.getFirstPropertyValue('version')).toBe('2.0')
  })
})

describe('what is said of a plan', () => {
  it('gives its reason with the number and the day', () => {
    const finding = { code: 'finger', finger: 4, cents: -27, offsetMm: -3, plusMinusMm: 1 } as const
    expect(reasonSentence({ code: 'finding', finding, on: '2026-11-14' }, 'violin')).toBe(
      '4 was 27 cents flat on 14 Nov 2026.',
    )
    expect(reasonSentence(reason, 'violin')).toBe('Tension: tense on 21 Nov 2026.')
    expect(reasonSentence({ code: 'review', finding, times: 2, days: 6 }, 'violin')).toBe(
      'Held 2 times since 4 was 27 cents flat: another look after 6 days.',
    )
  })

  it('names what was left out once for each reason', () => {
    const one = { code: 'one_new' } as const
    expect(
      leftOutSentences([
        { exerciseId: 'one_finger', why: one },
        { exerciseId: 'slow_drops', why: one },
        { exerciseId: 'octave_one_four', why: { code: 'age', fromAge: 8 } },
      ]),
    ).toEqual([
      { names: 'One finger and Slow drops', why: 'one new thing at a time: it waits for another week.' },
      { names: 'Octave 1 and 4', why: 'asked from the age of 8.' },
    ])
  })

  it('never says that an exercise was the cause, and blames nobody for an empty week', () => {
    const unit = (value: number) => `${value} cents`
    expect(effectSentence({ code: 'too_early', have: 1, need: 3 }, unit)).toBe(
      'Too early to say: 1 check since, 3 are needed.',
    )
    const changed = { code: 'changed', change: -12, low: -20, high: -4, isFaster: true } as const
    expect(effectSentence(changed, unit)).toBe(
      '12 cents nearer while it was practised (4 cents to 20 cents). It went faster than before.',
    )
    expect(effectSentence({ ...changed, high: 3, isFaster: null }, unit)).toContain(
      'No change can be told yet',
    )
    expect(practisedSum([])).toBe('Nothing is written down of this week.')
    expect(
      practisedSum([
        { on: '2026-11-28', minutes: 5 },
        { on: '2026-11-28', minutes: 2 },
      ]),
    ).toBe('1 day practised, 7 minutes in all.')
  })
})

describe('minutes and repetitions as they are typed', () => {
  it('are whole numbers or nothing; nothing, and none, were not practised', () => {
    expect(entryOf({ minutes: ' 7 ', times: '' })).toEqual({
      ok: true,
      isDone: true,
      minutes: 7,
      times: null,
    })
    expect(entryOf({ minutes: '', times: '20' })).toMatchObject({ isDone: true, times: 20 })
    for (const none of ['', '0'])
      expect(entryOf({ minutes: none, times: '' })).toMatchObject({ ok: true, isDone: false, minutes: null })
    for (const wrong of ['5.5', '-3', 'ten', '241'])
      expect(entryOf({ minutes: wrong, times: '' }).ok, wrong).toBe(false)
    expect(entryOf({ minutes: '', times: '1001' }).ok).toBe(false)
  })
})
