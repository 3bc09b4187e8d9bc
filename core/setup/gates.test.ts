import { describe, expect, it } from 'vitest'
import { tuningSystem } from '../pitch'
import { FAMILY_IDS, familyOf, type Finger } from '../instrument'
import { gateChecksOf, gatesOf, type GateCheck, type GateFacts } from './index'

const check = (string: string, cents: readonly number[], more: Partial<GateCheck> = {}): GateCheck => ({
  takenOn: '2026-11-21',
  string,
  positionId: 'first',
  tapesCovered: false,
  toleranceCents: 15,
  fingers: cents.map((meanCents, i) => ({ finger: (i + 1) as Finger, meanCents })),
  ...more,
})
const yes = (...ids: readonly string[]) => ids.map((itemId) => ({ itemId, answer: 'yes' as const }))

const BARE: GateFacts = {
  family: 'violin',
  sizeId: '1/2',
  system: tuningSystem('fifths')!,
  hand: null,
  hasTapes: true,
  setup: [],
  checks: [],
  positions: {},
  said: [],
}
const gate = (id: string, facts: Partial<GateFacts>) =>
  gatesOf({ ...BARE, ...facts }).find((one) => one.id === id)

/** docs/trade.md § 10, gates: each, missing part by missing part. */
describe('the fourth finger', () => {
  const hand = yes('gap', 'knuckles', 'elbow')
  const both = [check('A4', [3, -8, 12]), check('D4', [14, 0, -5])]

  it('waits for gap, knuckles and elbow, and 1 to 3 within tolerance on two strings', () => {
    expect(gate('fourth_finger', {})?.missing.map((one) => one.code)).toEqual([
      'setup',
      'setup',
      'setup',
      'strings',
    ])
    expect(gate('fourth_finger', { setup: hand, checks: both })?.isOpen).toBe(true)
    expect(gate('fourth_finger', { setup: hand, checks: both.slice(1) })?.missing).toEqual([
      { code: 'strings', have: 1, need: 2, fingers: [1, 2, 3] },
    ])
  })

  it('goes by the newest check of a string, and does not mind the fourth finger itself', () => {
    const flat4 = check('A4', [3, 3, 3, -40])
    expect(gate('fourth_finger', { setup: hand, checks: [flat4, both[1]!] })?.isOpen).toBe(true)
    const worse = check('A4', [3, 22, 3])
    expect(gate('fourth_finger', { setup: hand, checks: [worse, ...both] })?.isOpen).toBe(false)
    const high = check('A4', [3, 3, 3], { positionId: 'half' })
    expect(gate('fourth_finger', { setup: hand, checks: [high, both[1]!] })?.isOpen).toBe(false)
  })

  it('is no gate of a cello or a bass, whose fourth finger belongs to the first hand', () => {
    for (const family of ['cello', 'bass'] as const)
      expect(gate('fourth_finger', { family, sizeId: '1/2' })).toBeUndefined()
  })
})

describe('shifting and vibrato', () => {
  const both = [check('A4', [1, 1, 1]), check('E5', [1, 1, 1])]

  it('shifting waits for a squeeze that is nearly gone, and for a thumb that goes with the hand', () => {
    const setup = [{ itemId: 'squeeze', answer: 'nearly' as const }]
    expect(gate('shifting', { setup, checks: both })?.missing).toEqual([
      { code: 'setup', itemId: 'squeeze', answer: 'nearly' },
      { code: 'said', item: 'thumb_follows' },
    ])
    expect(gate('shifting', { setup: yes('squeeze'), said: ['thumb_follows'], checks: both })?.isOpen).toBe(
      true,
    )
  })

  it('on a bass the thumb is looked at in the setup, and said by nobody', () => {
    const facts = { family: 'bass', sizeId: '3/4', setup: yes('bass_stance') } as const
    const checks = ['A1', 'D2'].map((string) => ({
      ...check(string, []),
      fingers: ([1, 2, 4] as const).map((finger) => ({ finger, meanCents: 3 })),
    }))
    expect(gate('shifting', { ...facts, checks })?.missing).toEqual([
      { code: 'setup', itemId: 'bass_shift', answer: undefined },
    ])
  })

  it('vibrato asks for third position and back, and for what only a teacher sees', () => {
    const ready: Partial<GateFacts> = {
      setup: yes('thumb_joints'),
      positions: { third: 'secure' },
      said: ['easy_shift', 'steady_bow', 'swings_down'],
    }
    expect(gate('vibrato', ready)?.isOpen).toBe(true)
    expect(gate('vibrato', { ...ready, said: ['easy_shift', 'swings_down'] })?.missing).toEqual([
      { code: 'said', item: 'steady_bow' },
    ])
    expect(gate('vibrato', { ...ready, positions: { third: 'learning' } })?.missing).toMatchObject([
      { code: 'position', position: { id: 'third' } },
    ])
  })
})

describe('tapes off', () => {
  const seen = check('A4', [4, -6, 8])
  const covered = (takenOn: string, cents: readonly number[] = [5, -3, 10]) =>
    check('A4', cents, { takenOn, tapesCovered: true })
  const open = (...checks: GateCheck[]) => gate('tapes_off', { checks })?.isOpen

  it('stands open when it went as near covered as seen, twice, a week apart', () => {
    expect(open(covered('2026-11-21'), covered('2026-11-14'), seen)).toBe(true)
    expect(open(covered('2026-11-21'), covered('2026-11-15'), seen)).toBe(false)
    expect(open(covered('2026-11-21'), seen)).toBe(false)
    expect(gate('tapes_off', { hasTapes: false })).toBeUndefined()
  })

  it('goes by what the same hand does with them seen: off alike is as near, in tolerance and further off is not', () => {
    const rough = check('A4', [22, -25, 8])
    expect(open(covered('2026-11-21', [24, -20, 5]), covered('2026-11-14', [20, -28, 9]), rough)).toBe(true)
    expect(open(covered('2026-11-21', [14, -6, 8]), covered('2026-11-14', [14, -6, 8]), seen)).toBe(false)
  })

  it('is shut again by a worse one, and needs a take on the same string to be as near as', () => {
    expect(open(covered('2026-11-21', [25, 0, 0]), covered('2026-11-14'), covered('2026-11-07'), seen)).toBe(
      false,
    )
    expect(open(covered('2026-11-21'), covered('2026-11-18', [25, 0, 0]), covered('2026-11-07'), seen)).toBe(
      false,
    )
    expect(open(covered('2026-11-21'), covered('2026-11-14'))).toBe(false)
    expect(open(covered('2026-11-21'), covered('2026-11-14'), check('D4', [4, -6, 8]))).toBe(false)
  })
})

describe('the next size', () => {
  it('asks for the next frame in mm and for the arm; the full size has none', () => {
    const [span] = gate('next_size', { hand: { comfortableSpanMm: 60, reachedSpanMm: null } })!.missing
    expect(span).toMatchObject({ code: 'span', haveMm: 60, sizeId: '3/4' })
    // docs/trade.md § 4: w = L (2^(−2/12) − 2^(−7/12)) at 308 mm; a ringing fourth is within half a mm of it.
    expect((span as { needMm: number }).needMm).toBeCloseTo(308 * (2 ** (-2 / 12) - 2 ** (-7 / 12)), -0.3)
    const facts = { hand: { comfortableSpanMm: 71, reachedSpanMm: null }, said: ['arm_reaches' as const] }
    expect(gate('next_size', facts)?.isOpen).toBe(true)
    expect(gate('next_size', { ...facts, sizeId: '4/4' })).toBeUndefined()
  })
})

describe('a kept check', () => {
  const kept = {
    takenAt: '2026-11-21T09:41:00.000Z',
    exercise: { string: 'D3', shapeId: 'extended_back' },
    stringing: { family: 'cello', tuning: ['C2', 'G2', 'D3', 'A3'] },
    landings: [
      { stringIndex: 2, finger: 0, positionId: null, cents: 1 },
      { stringIndex: 2, finger: 1, positionId: 'half', cents: 8 },
      { stringIndex: 2, finger: 2, positionId: 'half', cents: -4 },
      { stringIndex: 2, finger: 1, positionId: 'half', cents: 12 },
    ],
    toleranceCents: 15,
    tapesCovered: true,
  } as const
  const halfOnD = {
    takenOn: '2026-11-21',
    string: 'D3',
    positionId: 'half',
    tapesCovered: true,
    toleranceCents: 15,
    fingers: [
      { finger: 1, meanCents: 10 },
      { finger: 2, meanCents: -4 },
    ],
  }

  it('is each finger’s mean, the open string left out, in the position where the hand stood', () => {
    expect(gateChecksOf('cello', kept)).toEqual([halfOnD])
  })

  it('is one for each string and position of a line', () => {
    const further = [
      { stringIndex: 3, finger: 1, positionId: 'first', cents: 3 },
      { stringIndex: 2, finger: 4, positionId: 'fourth', cents: 5 },
    ] as const
    const line = { ...kept, landings: [...kept.landings, ...further] }
    expect(gateChecksOf('cello', line)).toEqual([
      halfOnD,
      { ...halfOnD, positionId: 'fourth', fingers: [{ finger: 4, meanCents: 5 }] },
      { ...halfOnD, string: 'A3', positionId: 'first', fingers: [{ finger: 1, meanCents: 3 }] },
    ])
  })

  it('counts for no other family, and not where only its verdict is left', () => {
    expect(gateChecksOf('bass', kept)).toEqual([])
    expect(gateChecksOf('cello', { ...kept, exercise: null })).toEqual([])
    expect(gateChecksOf('cello', { ...kept, stringing: null })).toEqual([])
  })
})

it('every hand shape lies in a position that its family has', () => {
  for (const id of FAMILY_IDS) {
    const { shapes, positions } = familyOf(id)
    for (const { positionId } of shapes)
      expect(positions.map((position) => position.id)).toContain(positionId)
  }
})
