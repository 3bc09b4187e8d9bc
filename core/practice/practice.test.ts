import { expect, it } from 'vitest'
import { dueOn, REMEASURE_AFTER_DAYS } from './index'

it('asks for one thing at a time until there is an instrument and a length', () => {
  expect(dueOn('2026-11-28', { hasInstrument: false })).toEqual([{ code: 'no_instrument' }])
  expect(dueOn('2026-11-28', { hasInstrument: true })).toEqual([{ code: 'measure_length' }])
})

it('counts days across a change of clocks, and stays quiet until they are over', () => {
  const facts = { hasInstrument: true, measuredOn: '2026-05-30', checkedOn: '2026-11-21' }
  expect(REMEASURE_AFTER_DAYS).toBe(182)
  expect(dueOn('2026-11-28', facts)).toEqual([])
  expect(dueOn('2026-11-29', facts)).toEqual([{ code: 'remeasure_length', days: 183 }])
})

it('puts what the tapes ask for before the hand', () => {
  const facts = { hasInstrument: true, measuredOn: '2026-10-03' }
  const tapes = [{ code: 'check_tapes', days: 57, isEvery: true }] as const
  expect(dueOn('2026-11-28', { ...facts, tapes }).map((d) => d.code)).toEqual(['check_tapes', 'first_check'])
})
