import { describe, expect, it } from 'vitest'
import type { SetupAnswer } from '../setup'
import type { Finding, Verdict } from '../verdict'
import { followedBy as follow, mendCounts, mendInterval, type CheckForPlan, type FollowedFile } from './index'
import { fingerFinding, frameFinding } from './testing'

const FOURTH = fingerFinding(4, -27)
const check = (takenOn: string, finding?: Finding, more: Partial<CheckForPlan> = {}): CheckForPlan => ({
  exerciseId: 'shape',
  takenOn,
  verdict: (finding
    ? { outcome: 'explained', findings: [finding] }
    : { outcome: 'in_tune' }) as unknown as Verdict,
  ...more,
})
const plan = (startsOn: string, on: string, finding: Finding = FOURTH) => ({
  startsOn,
  cards: [{ exerciseId: 'one_finger', reason: { code: 'finding', finding, on } } as const],
})
const done = (...days: string[]) => days.map((on) => ({ exerciseId: 'one_finger', on }))
const followedBy = (
  plans: FollowedFile['plans'],
  log: FollowedFile['log'],
  checks: readonly CheckForPlan[],
  setup: FollowedFile['setup'] = [],
) => follow({ plans, log, checks, setup })
const PLAN = plan('2026-10-03', '2026-10-03')
const DAYS = done('2026-10-04', '2026-10-06', '2026-10-07')
const before = check('2026-10-03', FOURTH)

describe('what followed an exercise', () => {
  it('is said by the newest later check of the same playing, each exercise and finding once', () => {
    const [mended] = followedBy([PLAN], DAYS, [before, check('2026-10-10', FOURTH), check('2026-10-17')])
    expect(mended).toEqual({ exerciseId: 'one_finger', reason: 'finger', isMended: true })
    const again = followedBy([PLAN, plan('2026-10-10', '2026-10-10')], DAYS, [
      before,
      check('2026-10-17', FOURTH),
    ])
    expect(again).toEqual([{ exerciseId: 'one_finger', reason: 'finger', isMended: false }])
    // Flat before and sharp since is another fault.
    expect(followedBy([PLAN], DAYS, [before, check('2026-10-17', fingerFinding(4, 12))])[0]?.isMended).toBe(
      true,
    )
  })

  it('is nothing before three days of it, and without a judged check of the same playing after them', () => {
    const later = check('2026-10-17')
    expect(followedBy([PLAN], DAYS.slice(1), [before, later])).toEqual([])
    expect(followedBy([PLAN], [...DAYS.slice(1), DAYS[1]!], [before, later])).toEqual([])
    expect(followedBy([plan('2026-10-05', '2026-10-03')], DAYS, [before, later])).toEqual([])
    expect(followedBy([PLAN], DAYS, [before, check('2026-10-07')])).toEqual([])
    expect(followedBy([PLAN], DAYS, [before, { ...later, exerciseId: 'scale' }])).toEqual([])
    const unheard = { ...later, verdict: { outcome: 'not_enough_notes' } as unknown as Verdict }
    expect(followedBy([PLAN], DAYS, [before, unheard])).toEqual([])
    expect(followedBy([plan('2026-10-03', '2026-10-03', frameFinding(-4))], DAYS, [before, later])).toEqual(
      [],
    )
    expect(followedBy([], DAYS, [before, later])).toEqual([])
  })

  it('of an item of the setup is said by its newest answer, where nearly is not yet', () => {
    const reason = { code: 'setup', itemId: 'elbow', answer: 'no', on: '2026-10-03' } as const
    const plans = [{ startsOn: '2026-10-03', cards: [{ exerciseId: 'swing_elbow', reason } as const] }]
    const log = DAYS.map((one) => ({ ...one, exerciseId: 'swing_elbow' }))
    const said = (on: string, answer: SetupAnswer, itemId = 'elbow') => ({ itemId, answer, on })
    const mended = (...setup: FollowedFile['setup']) => followedBy(plans, log, [], setup)[0]
    expect(mended(said('2026-10-10', 'nearly'), said('2026-10-17', 'yes'))).toEqual({
      exerciseId: 'swing_elbow',
      reason: 'setup elbow',
      isMended: true,
    })
    expect(mended(said('2026-10-17', 'nearly'), said('2026-10-10', 'yes'))?.isMended).toBe(false)
    expect(mended(said('2026-10-06', 'yes'), said('2026-10-17', 'yes', 'gap'))).toBeUndefined()
  })

  it('is counted over students, with an interval that few of them leave wide', () => {
    const one = { exerciseId: 'one_finger', reason: 'finger', isMended: true } as const
    const counts = mendCounts([one, { ...one, isMended: false }, { ...one, reason: 'frame' }])
    expect(counts).toEqual([
      { exerciseId: 'one_finger', reason: 'finger', tried: 2, mended: 1 },
      { exerciseId: 'one_finger', reason: 'frame', tried: 1, mended: 1 },
    ])
    const [low, high] = mendInterval(counts[0]!)
    expect(low).toBeLessThan(0.1)
    expect(high).toBeGreaterThan(0.9)
  })
})
