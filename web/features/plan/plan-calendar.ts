import ical from 'ical-generator'
import { dayNumber, dayOf } from '#core'
import type { Plan } from '#contracts'
import { practiceName } from '../../words/plan'

/** Practice days as an iCalendar file (RFC 5545): a day each, with what it asks; no student is named in it. */
export function planCalendar(plans: readonly Plan[]): string {
  const calendar = ical({ name: 'Practice', prodId: { company: 'Jadefell', product: 'Practice' } })
  for (const { id, at, cards } of plans)
    for (const day of new Set(cards.map(({ on }) => on))) {
      const own = cards.filter(({ on }) => on === day)
      const minutes = own.reduce((sum, card) => sum + card.minutes, 0)
      calendar.createEvent({
        id: `${id}-${day}`,
        stamp: at,
        start: day,
        end: dayOf(dayNumber(day) + 1),
        allDay: true,
        summary: `Practice, ${minutes} minutes`,
        description: own
          .map(({ exerciseId, minutes: m }) => `${practiceName(exerciseId)}, ${m} min`)
          .join('\n'),
      })
    }
  return calendar.toString()
}
