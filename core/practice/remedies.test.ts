import { describe, expect, it } from 'vitest'
import { FAMILY_IDS } from '../instrument'
import { roundItems, SETUP_ITEM_IDS, USUAL_SCHOOLS } from '../setup'
import type { Finding } from '../verdict'
import {
  exercisesFor,
  isPracticedOn,
  LEARNING_EXERCISES,
  MATCH_EXERCISES,
  PRACTICE,
  PRACTICE_IDS,
  remediesFor,
} from './index'
import { frameFinding } from './testing'

const NARROW = frameFinding(-3)
const far = { plusMinusMm: 1, offsetMm: -5 }

describe('what helps (docs/trade.md § 8, common practice, no source)', () => {
  it('with an item of the setup is offered once, is played on the instruments that have the item, and none is for pain, nails or a size', () => {
    for (const id of SETUP_ITEM_IDS) {
      const remedies = remediesFor(id, USUAL_SCHOOLS)
      expect(new Set(remedies).size, id).toBe(remedies.length)
      for (const family of FAMILY_IDS)
        if (roundItems(family).some((item) => item.id === id))
          for (const remedy of remedies)
            expect(isPracticedOn(PRACTICE[remedy], family), `${remedy} of a ${family}`).toBe(true)
    }
    for (const id of ['pain', 'nails', 'size'] as const) expect(remediesFor(id, USUAL_SCHOOLS)).toEqual([])
  })

  it('sends nobody to hover who lets the hand rest', () => {
    expect(remediesFor('waiting_fingers', { waiting_fingers: 'hover' })).toEqual([
      'slow_scale_hover',
      'own_motion',
    ])
    expect(remediesFor('waiting_fingers', { waiting_fingers: 'rest' })).toEqual([
      'lift_from_rest',
      'own_motion',
    ])
  })

  it('with a finding follows what was found, and how the instrument is held', () => {
    expect(exercisesFor(NARROW, 'violin')).toEqual(['find_elbow', 'fourth_against_open'])
    expect(exercisesFor(NARROW, 'bass')).toEqual(['silent_pattern'])
    expect(exercisesFor({ ...NARROW, errorMm: 3 }, 'violin')).toEqual(['smaller_shape'])
    expect(exercisesFor({ ...NARROW, where: 'first' }, 'cello')).toEqual(['lift_first'])
    expect(exercisesFor({ code: 'whole_hand', ...far, openStringHeard: true }, 'viola')).toEqual([
      'open_and_first',
    ])
    expect(exercisesFor({ code: 'whole_hand', ...far, offsetMm: 5, openStringHeard: true }, 'viola')).toEqual(
      ['come_home'],
    )
    expect(exercisesFor({ code: 'dull', finger: 4, lessDb: 5 }, 'cello')).toEqual(['long_notes'])
    // What an extended hand does is no finding of a violin, and nothing is advised for it there.
    expect(exercisesFor({ code: 'pinched', ...far }, 'violin')).toEqual([])
    expect(exercisesFor({ code: 'pinched', ...far }, 'cello')).toEqual(['lift_extended_first'])
  })

  it('is all asked for somewhere, and has a dose only where docs/trade.md § 8 has one', () => {
    const asked = new Set<string>([
      ...SETUP_ITEM_IDS.flatMap((id) =>
        (['hover', 'rest'] as const).flatMap((waiting_fingers) => remediesFor(id, { waiting_fingers })),
      ),
      ...Object.values(MATCH_EXERCISES),
      ...ADVISED,
      ...LEARNING_EXERCISES,
      // Beside whatever is new.
      'review_piece',
    ])
    expect([...asked].sort()).toEqual([...PRACTICE_IDS].sort())
    const dosed = PRACTICE_IDS.filter((id) => PRACTICE[id].dose).map((id) => [id, PRACTICE[id].dose])
    expect(Object.fromEntries(dosed)).toEqual({
      shake_out: { per: 'day', minutes: [5, 10] },
      lift_from_rest: { per: 'day', minutes: [5, 10] },
      hands_away: { per: 'day', minutes: [5, 5] },
      tap_on_wood: { per: 'time', seconds: 30 },
      silent_pattern: { per: 'time', seconds: 30 },
      drop_fourth: { per: 'day', times: 10 },
      fourth_against_open: { per: 'day', times: 'a few' },
      open_and_first: { per: 'string', times: 20 },
    })
  })
})

const ADVISED = [
  ...(['steps', 'locked_thumb', 'elbow', 'pinched', 'dragged', 'creep', 'string', 'scatter'] as const),
  ...([
    'ear_repairs',
    'wobble',
    'dull',
    'vibrato',
    'without_tapes',
    'place',
    'finger',
    'whole_hand',
  ] as const),
].flatMap((code) =>
  FAMILY_IDS.flatMap((family) => [
    ...exercisesFor({ code, offsetMm: 1 } as unknown as Finding, family),
    ...exercisesFor({ code, offsetMm: -1 } as unknown as Finding, family),
    ...exercisesFor(NARROW, family),
    ...exercisesFor({ ...NARROW, errorMm: 3 }, family),
    ...exercisesFor({ ...NARROW, where: 'first' }, family),
  ]),
)
