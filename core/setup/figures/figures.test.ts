import { describe, expect, it } from 'vitest'
import { distance, fingerLengthMm } from '../../figure'
import { FAMILY_IDS } from '../../instrument'
import { arrangedItems, USUAL_SCHOOLS } from '../index'
import { isDrawnItem, setupFigure } from './index'

/** What the two sides of a left hand are, whatever the item: docs/body.md, "How the body lies in each view". */
describe('every plan of every family is of a left hand', () => {
  const plans = FAMILY_IDS.flatMap((family) =>
    arrangedItems(family).flatMap(({ id }) =>
      (['right', 'wrong'] as const).flatMap((side) => {
        const figure = isDrawnItem(id) && setupFigure(id, { side, family, schools: USUAL_SCHOOLS })
        return figure && figure.hand ? [{ what: `${family} ${id} ${side}`, family, hand: figure.hand }] : []
      }),
    ),
  )

  it('knuckles on the thin string’s side, thumb on the other, 1 nearest to the nut', () => {
    expect(new Set(plans.map(({ family }) => family)).size).toBe(4)
    expect(plans.length).toBeGreaterThan(30)
    for (const { what, family, hand } of plans) {
      // The thinnest string is on top, and y runs downwards.
      for (const base of hand.bases) expect(base.y, what).toBeLessThan(-hand.half)
      expect(hand.bases.map(({ x }) => x)).toEqual(hand.bases.map(({ x }) => x).sort((a, b) => a - b))
      for (const [i, tip] of hand.tips.entries()) expect(tip.y, what).toBeGreaterThan(hand.bases[i]!.y)
      if (family === 'violin' || family === 'viola') expect(hand.thumbTip.y, what).toBeGreaterThan(hand.half)
      else expect(hand.thumbTip.y, what).toBeGreaterThan(hand.bases[0].y + hand.half)
    }
  })

  it('no finger is drawn longer than its bones and its pad are', () => {
    for (const { what, family, hand } of plans)
      for (const [i, finger] of ([1, 2, 3, 4] as const).entries()) {
        const size = family === 'violin' || family === 'viola' ? 1 : 1.28
        expect(distance(hand.bases[i]!, hand.tips[i]!), what).toBeLessThan(
          (fingerLengthMm(finger) + 6) * size,
        )
      }
  })
})

it('an arm round the scroll is almost straight where it fits, and straight where it does not', () => {
  const degrees = (side: 'right' | 'wrong') =>
    setupFigure('size', { side, family: 'violin', schools: USUAL_SCHOOLS }).parts.flatMap((part) =>
      part.kind === 'label' ? [part.value!] : [],
    )[0]!
  expect(degrees('right')).toBeGreaterThanOrEqual(150)
  expect(degrees('right')).toBeLessThanOrEqual(165)
  expect(degrees('wrong')).toBeGreaterThan(170)
})
