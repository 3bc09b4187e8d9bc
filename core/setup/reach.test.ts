import { randomNormal, randomUniform } from 'd3-random'
import { describe, expect, it } from 'vitest'
import { dayNumber, dayOf } from '../calendar'
import { seededSource } from '../simulate'
import { whenWithin, type GateCheck } from './index'

const FINGERS = [1, 2, 3] as const
const START = dayNumber('2026-09-05')
const look = (day: number, cents: number, more: Partial<GateCheck> = {}): GateCheck => ({
  takenOn: dayOf(START + day),
  string: 'A4',
  positionId: 'first',
  tapesCovered: false,
  toleranceCents: 15,
  fingers: [
    { finger: 1, meanCents: 3 },
    { finger: 2, meanCents: -cents },
    { finger: 3, meanCents: 2 },
    { finger: 4, meanCents: 90 },
  ],
  ...more,
})
const when = (checks: readonly GateCheck[], today: number) =>
  whenWithin(checks, FINGERS, dayOf(START + today))

describe('when fingers may come within their tolerance', () => {
  const mending = [0, 14, 28, 42, 56].map((day) => look(day, 40 - 0.25 * day))

  it('is where the line of their looks reaches it, whichever finger and string is worst', () => {
    // 40 − 0.25 a day is 15 on the hundredth day.
    expect(when(mending, 60)).toEqual({ from: dayOf(START + 100), to: dayOf(START + 100) })
    const better = mending.map(({ takenOn }, i) => look(dayNumber(takenOn) - START, 4 + i, { string: 'D4' }))
    expect(when([...better, ...mending], 60)).toEqual(when(mending, 60))
  })

  it('is not told of few looks, of a hand that stands still or gets worse, far ahead, or within already', () => {
    expect(when(mending.slice(2), 60)).toBeUndefined()
    expect(
      when(
        mending.map((_, i) => look(14 * i, 40)),
        60,
      ),
    ).toBeUndefined()
    expect(
      when(
        mending.map((_, i) => look(14 * i, 20 + i)),
        60,
      ),
    ).toBeUndefined()
    expect(
      when(
        mending.map((_, i) => look(14 * i, 40 - 0.1 * i)),
        60,
      ),
    ).toBeUndefined()
    expect(when(mending, 120)).toBeUndefined()
    expect(when([], 60)).toBeUndefined()
    expect(when([look(0, 40), look(0, 30), look(0, 20), look(0, 10)], 1)).toBeUndefined()
  })

  it('holds the day four times in five of those in which it is told, and seldom speaks of a hand that stands still', () => {
    const source = seededSource(77)
    const noise = randomNormal.source(source)(0, 3)
    const uniform = randomUniform.source(source)
    let [told, held, still] = [0, 0, 0]
    for (let hand = 0; hand < 600; hand++) {
      const [from, slope] = [uniform(35, 50)(), -uniform(0.15, 0.4)()]
      const days = [0, 7, 14, 28, 35, 49, 56]
      const truth = (15 - from) / slope
      const reach = when(
        days.map((day) => look(day, from + slope * day + noise())),
        57,
      )
      if (reach && truth > 57) {
        told++
        held += Number(START + truth >= dayNumber(reach.from) - 1 && START + truth <= dayNumber(reach.to))
      }
      still += Number(
        when(
          days.map((day) => look(day, 30 + noise())),
          57,
        ) !== undefined,
      )
    }
    expect(told).toBeGreaterThan(150)
    // Only told where the day is still to come, the interval holds a little less than it does unasked.
    expect(held / told).toBeGreaterThan(0.74)
    expect(held / told).toBeLessThan(0.9)
    expect(still / 600).toBeLessThan(0.05)
  })
})
