import { expect, it } from 'vitest'
import { noteName } from '#core'
import { landed, shaped, strung } from '../../../core/testing'
import { landingsOf } from './landings'

const take = { stringing: strung('violin', 284.5), exercise: shaped('violin') }

it('gives the mean of each finger as it was kept, in the order of the hand, without the open string', () => {
  const landings = landed(take, [
    [4, -20],
    [0, 3],
    [1, 6],
    [1, 8],
  ]).map((landing) => ({ ...landing, note: noteName(landing.note) }))
  expect(landingsOf({ landings })).toEqual([
    { finger: 1, cents: 7 },
    { finger: 4, cents: -20 },
  ])
  expect(landingsOf({ landings: [] })).toEqual([])
})
