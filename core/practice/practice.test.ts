import { expect, it } from 'vitest'
import { CHECK_TAPES_AFTER_DAYS, dueOn } from './index'

it('asks for one thing at a time until there is an instrument and a length', () => {
  expect(dueOn('2026-11-28', { hasInstrument: false })).toEqual([{ code: 'no_instrument' }])
  expect(dueOn('2026-11-28', { hasInstrument: true })).toEqual([{ code: 'measure_length' }])
})

it('counts days across a change of clocks, and stays quiet until they are over', () => {
  const facts = { hasInstrument: true, measuredOn: '2026-10-03', checkedOn: '2026-11-21' }
  expect(CHECK_TAPES_AFTER_DAYS).toBe(56)
  expect(dueOn('2026-11-28', { ...facts, tapesLaidOn: '2026-10-03' })).toEqual([])
  expect(dueOn('2026-11-29', { ...facts, tapesLaidOn: '2026-10-03' })).toEqual([
    { code: 'check_tapes', days: 57 },
  ])
})
