import { describe, expect, it } from 'vitest'
import type { Finding, Verdict } from '../verdict'
import { faultsOf, findingKey, type CheckForPlan } from './index'

const short = (cents: number): Finding => ({
  code: 'finger',
  finger: 4,
  offsetMm: cents / 6,
  plusMinusMm: 1,
  cents,
})
const explained = (...findings: Finding[]): Verdict => ({
  outcome: 'explained',
  findings,
  alternatives: [],
  fingers: [],
})
const IN_TUNE = { outcome: 'in_tune', fingers: [] } as unknown as Verdict
const FEW: Verdict = { outcome: 'not_enough_notes', fingersHeard: [1], fingersNeeded: 3, fingers: [] }
const on = (takenOn: string, verdict: Verdict, more: Partial<CheckForPlan> = {}): CheckForPlan => ({
  exerciseId: 'shape D4 first',
  takenOn,
  verdict,
  ...more,
})

describe('what checks ask to be practised', () => {
  it('is what the newest check of each exercise found, and not what it no longer does', () => {
    const { found, held } = faultsOf([
      on('2026-10-03', explained(short(-30))),
      on('2026-10-17', IN_TUNE),
      on('2026-10-10', explained(short(-20)), { exerciseId: 'scale D:major' }),
    ])
    expect(found).toEqual([{ finding: short(-20), takenOn: '2026-10-10', certainty: 1, says: undefined }])
    // It is there still in another exercise: nothing has held.
    expect(held).toEqual([])
  })

  it('has held since, as often as it was judged without it; too few notes count for nothing', () => {
    const { found, held } = faultsOf([
      on('2026-10-31', IN_TUNE),
      on('2026-10-24', FEW),
      on('2026-10-17', IN_TUNE),
      on('2026-10-03', explained(short(-30))),
    ])
    expect(found).toEqual([])
    expect(held).toEqual([{ finding: short(-30), heldOn: ['2026-10-17', '2026-10-31'] }])
  })

  it('is less sure of what is leaned to or told beside, and is no fault that was overruled', () => {
    const leans: Verdict = { ...FEW, leans: true, maybe: [short(-25)] }
    expect(faultsOf([on('2026-10-03', leans)]).found[0]?.certainty).toBe(0.5)
    const wobble: Finding = { code: 'wobble', finger: 2, cents: 9 }
    expect(faultsOf([on('2026-10-03', { ...IN_TUNE, beside: [wobble] })]).found[0]?.certainty).toBe(0.7)
    const overruled = on('2026-10-03', explained(short(-30)), { says: 'overruled' })
    expect(faultsOf([on('2026-10-17', IN_TUNE), overruled]).held).toEqual([])
    expect(faultsOf([overruled]).found[0]?.says).toBe('overruled')
  })

  it('knows flat from sharp as two faults, and small from large as one', () => {
    expect(findingKey(short(-30))).toBe(findingKey(short(-12)))
    expect(findingKey(short(-30))).not.toBe(findingKey(short(30)))
  })
})
