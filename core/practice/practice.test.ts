import { describe, expect, it } from 'vitest'
import { dueOn, proposedExercise, REMEASURE_AFTER_DAYS } from './index'

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

const whole = { hasInstrument: true, measuredOn: '2026-11-07', checkedOn: '2026-11-21' }
const nearly = (itemId: string, since: string) =>
  ({ itemId, answer: 'nearly', measured: null, since, seenOn: '2026-11-21' }) as const

it('tells pain before everything else, also of somebody without an instrument', () => {
  const pains = [{ place: 'left wrist', toldOn: '2026-11-21' }]
  expect(dueOn('2026-11-28', { hasInstrument: false, pains })).toEqual([
    { code: 'pain', place: 'left wrist', toldOn: '2026-11-21' },
    { code: 'no_instrument' },
  ])
})

it('tells what has been nearly right for six weeks, the longest, and how many more there are', () => {
  const setup = [nearly('gap', '2026-10-10'), nearly('elbow', '2026-09-26'), nearly('wrist', '2026-11-14')]
  expect(dueOn('2026-11-28', { ...whole, setup })).toEqual([
    { code: 'long_nearly', itemId: 'elbow', days: 63, others: 1 },
  ])
  expect(dueOn('2026-11-20', { ...whole, setup: setup.slice(0, 1) })).toEqual([])
})

it('looks again as often as the studio says', () => {
  const often = { remeasureDays: 14, checkHandDays: 7 }
  expect(dueOn('2026-11-28', whole, often).map((due) => due.code)).toEqual(['remeasure_length'])
  expect(dueOn('2026-11-29', whole, often).map((due) => due.code)).toEqual(['remeasure_length', 'check_hand'])
})

describe('what is proposed to be played', () => {
  const check = (exerciseId: string, takenOn: string, isOff = false) => ({ exerciseId, takenOn, isOff })

  it('is what was off last, the newest first, and no more once it was played well', () => {
    const checks = [
      check('D string', '2026-11-21'),
      check('A string', '2026-11-14', true),
      check('scale', '2026-10-03', true),
    ]
    expect(proposedExercise('2026-11-28', checks)).toEqual({
      exerciseId: 'A string',
      takenOn: '2026-11-14',
      reason: 'last_off',
    })
    const mended = [check('A string', '2026-11-28'), ...checks]
    expect(proposedExercise('2026-11-28', mended)?.exerciseId).toBe('scale')
  })

  it('is else what nobody has heard for longest, once it is due', () => {
    const checks = [check('A string', '2026-11-21'), check('D string', '2026-10-31')]
    expect(proposedExercise('2026-11-28', checks)).toBeUndefined()
    expect(proposedExercise('2026-11-29', checks)).toEqual({
      exerciseId: 'D string',
      takenOn: '2026-10-31',
      reason: 'due',
    })
    expect(proposedExercise('2026-11-28', checks, 20)?.reason).toBe('due')
    expect(proposedExercise('2026-11-28', [])).toBeUndefined()
  })
})
