import { describe, expect, it } from 'vitest'
import type { Finding } from '../verdict'
import {
  itemsBehind,
  oddsOf,
  roundItems,
  SYMPTOMS,
  symptomsOf,
  type SetupItemId,
  type Symptom,
} from './index'

const ids = (family: 'violin' | 'cello' | 'bass') => roundItems(family).map(({ id }) => id)

/** docs/trade.md § 10, row by row. */
const WHAT_ANSWERS_CHANGE: readonly (readonly [SetupItemId, Symptom])[] = [
  ['cello_thumb_joints', 'one_two_wide'],
  ['thumb_place', 'creeping_sharp'],
  ['elbow', 'narrow_frame'],
  ['elbow', 'fourth_flat'],
  ['elbow', 'lowest_strings_off'],
  ['gap', 'narrow_frame'],
  ['gap', 'no_ring'],
  ['squeeze', 'narrow_frame'],
  ['squeeze', 'no_ring'],
  ['cello_extension_back', 'extension_sharp'],
  ['last_joint', 'wobble'],
  ['palm', 'fourth_flat'],
  ['knuckle_room', 'half_steps_wide'],
]

/** The same: what else an item tends to do. */
const ARROWS: readonly (readonly [SetupItemId, Symptom])[] = [
  ['tuned', 'strings_off'],
  ['fourth_side', 'fourth_flat'],
  ['fourth_side', 'fourth_late'],
  ['cello_extension_back', 'hand_moved_back'],
  ['bass_hand', 'narrow_frame'],
  ['bass_fingers', 'wobble'],
]

describe('what an answer implies', () => {
  it.each([...WHAT_ANSWERS_CHANGE, ...ARROWS])('%s raises the odds of %s', (itemId, symptom) => {
    expect(SYMPTOMS[itemId]).toContain(symptom)
    expect(oddsOf(symptom, [{ itemId, answer: 'no' }])).toBeGreaterThan(1)
    expect(oddsOf(symptom, [{ itemId, answer: 'yes' }])).toBeLessThan(1)
  })

  it('multiplies over several answers, and one “no” outweighs one “yes”', () => {
    const both = oddsOf('narrow_frame', [
      { itemId: 'gap', answer: 'no' },
      { itemId: 'elbow', answer: 'no' },
    ])
    expect(both).toBeCloseTo(oddsOf('narrow_frame', [{ itemId: 'gap', answer: 'no' }]) ** 2, 9)
    const against = oddsOf('narrow_frame', [
      { itemId: 'gap', answer: 'no' },
      { itemId: 'elbow', answer: 'yes' },
    ])
    expect(against).toBeGreaterThan(1)
  })
})

const frame = (more: Partial<Extract<Finding, { code: 'frame' }>>): Finding => ({
  code: 'frame',
  errorMm: -3,
  plusMinusMm: 1,
  where: 'across',
  fromFinger: 1,
  toFinger: 4,
  expectedMm: 73,
  cents: -20,
  shownBy: 4,
  ...more,
})
const finger = (n: 1 | 2 | 3 | 4, offsetMm: number): Finding => ({
  code: 'finger',
  finger: n,
  offsetMm,
  plusMinusMm: 1,
  cents: offsetMm * 6,
})

/** docs/trade.md § 7: what the readings show, in the setup’s own words. */
describe('the symptoms of a finding', () => {
  it.each<[string, Finding, 'violin' | 'cello' | 'bass', Symptom]>([
    [
      'a hand up the board',
      { code: 'whole_hand', offsetMm: 4, plusMinusMm: 1, openStringHeard: true },
      'violin',
      'hand_sharp',
    ],
    [
      'a hand back at the nut',
      { code: 'whole_hand', offsetMm: -4, plusMinusMm: 1, openStringHeard: true },
      'bass',
      'hand_flat',
    ],
    ['a narrow frame', frame({}), 'violin', 'narrow_frame'],
    ['a fourth finger alone that falls short', frame({ where: 'last' }), 'violin', 'fourth_flat'],
    ['a wide frame', frame({ errorMm: 4 }), 'violin', 'wide_frame'],
    ['a cello’s first finger pulled up', frame({ where: 'first' }), 'cello', 'extension_sharp'],
    ['1–2 wide on a cello', finger(2, 5), 'cello', 'one_two_wide'],
    ['a second finger high on a violin', finger(2, 4), 'violin', 'half_steps_wide'],
    ['a fourth finger low', finger(4, -4), 'violin', 'fourth_flat'],
    ['a third finger’s own aim', finger(3, 2), 'violin', 'scatter'],
  ])('of %s begin with what shows it most', (_, finding, family, first) => {
    expect(symptomsOf(finding, family)[0]).toBe(first)
  })
})

describe('the items behind a verdict', () => {
  const behind = (finding: Finding, family: 'violin' | 'cello' | 'bass') =>
    itemsBehind({ outcome: 'explained', findings: [finding] }, family, ids(family))

  it('begin with the hand’s own, and with those that show first of all what was found', () => {
    expect(behind(frame({ where: 'last' }), 'violin').slice(0, 4)).toEqual([
      'wrist',
      'palm',
      'fourth_side',
      'tip_fourth',
    ])
    expect(behind(finger(2, 6), 'cello')[0]).toBe('cello_thumb_joints')
    expect(behind(frame({}), 'violin').indexOf('gap')).toBeLessThan(
      behind(frame({}), 'violin').indexOf('collarbone'),
    )
  })

  it('are never those that a studio leaves out, nor of another family', () => {
    const left = ids('violin').filter((id) => id !== 'gap')
    expect(itemsBehind({ outcome: 'explained', findings: [frame({})] }, 'violin', left)).not.toContain('gap')
    expect(behind(frame({}), 'bass').every((id) => !id.startsWith('cello'))).toBe(true)
    expect(itemsBehind({ outcome: 'explained', findings: [frame({})] }, 'violin', ['own-rosin'])).toEqual([])
  })
})
