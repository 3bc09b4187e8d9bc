import { describe, expect, it } from 'vitest'
import type { Check } from '#contracts'
import { A_STUDENT, AN_INSTRUMENT } from '../../testing'
import { landingsOf } from './landings'

const CHECK: Check = {
  id: 'c',
  takenAt: '2026-11-28T09:41:00.000Z',
  string: 'A4',
  shapeId: 'first',
  verdict: { outcome: 'string_out_of_tune', cents: 9 },
  studentId: A_STUDENT.id,
  instrumentId: AN_INSTRUMENT.id,
  system: 'fifths',
  lengthMm: 284.5,
  toleranceCents: 15,
  readings: [
    { finger: 0, shownCents: 0 },
    { finger: 1, shownCents: 6 },
    { finger: 1, shownCents: 8 },
    { finger: 4, shownCents: -20 },
  ],
  note: '',
  by: 'Hester Lowe',
  removedAt: null,
}

describe('the landings of a kept check', () => {
  it('are means off the place, with what the meter should have shown taken off', () => {
    const [first, fourth, ...more] = landingsOf(CHECK, 'violin')
    // in pure fifths B shows +3.91 and E +1.955 (Ellis in Helmholtz)
    expect(first?.cents).toBeCloseTo(7 - 3.91, 2)
    expect(fourth?.cents).toBeCloseTo(-20 - 1.955, 2)
    expect(more).toEqual([])
  })

  it('are judged by the system the check was kept under, not by today’s', () => {
    expect(landingsOf({ ...CHECK, system: 'equal' }, 'violin')[0]?.cents).toBeCloseTo(7, 9)
  })

  it('are none for a shape that the family no longer knows', () => {
    expect(landingsOf({ ...CHECK, shapeId: 'gone' }, 'violin')).toEqual([])
  })
})
