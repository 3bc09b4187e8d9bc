import { expect, it } from 'vitest'
import type { TapeEvent } from '#contracts'
import { timelineOf, timelineScales } from './timeline'

/** Drawn from 40 to 740 px and from 220 up to 20. */
function drawn(events: readonly TapeEvent[], today: string) {
  const scales = timelineScales(events, today)
  const x = scales.x([40, 740])
  return { x, ...timelineOf(events, today, x, scales.y([220, 20])) }
}

function event(
  on: string,
  kind: TapeEvent['kind'],
  placeMm: number | null,
  markId: string | null = '1.2',
): TapeEvent {
  return { id: on + kind, instrumentId: '', kind, markId, placeMm, on, reason: '', by: '', recordedAt: '' }
}

it('draws each tape from the day it was laid to the day it came off, in steps, further from the nut lower down', () => {
  const events = [
    event('2026-01-01', 'laid', 31),
    event('2026-01-01', 'laid', 71, '3.5'),
    event('2026-03-01', 'crept', 33),
    event('2026-06-01', 'trial', null, null),
    event('2026-07-01', 'faded', null, '3.5'),
  ]
  const { tapes, moments, x } = drawn(events, '2026-12-31')
  const [first, third] = tapes
  expect(first?.points.map((p) => p.kind)).toEqual(['laid', 'crept'])
  expect(first!.points[1]!.y).toBeGreaterThan(first!.points[0]!.y)
  expect(third!.points[0]!.y).toBeGreaterThan(first!.points[1]!.y)
  expect(first?.endX).toBeCloseTo(740, 6) // still there: to the end of the paper
  expect(third?.endX).toBeCloseTo(x(new Date('2026-07-01')), 6)
  expect(first?.path).toMatch(/^M40,[\d.]+H[\d.]+V[\d.]+H740$/)
  expect(moments.map((m) => m.kind)).toEqual(['trial'])
})

it('has room for one entry on one day', () => {
  const { tapes } = drawn([event('2026-11-28', 'laid', 31)], '2026-11-28')
  expect(Number.isFinite(tapes[0]!.points[0]!.x)).toBe(true)
  expect(Number.isFinite(tapes[0]!.endY)).toBe(true)
})
