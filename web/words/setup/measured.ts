import { setupMeasureOf } from '#core'
import { length } from '../numbers'

/** On which side of the first finger a thumb is whose number is positive, and on which where it is negative. */
const THUMBS: Readonly<Record<string, readonly [positive: string, negative: string]>> = {
  thumb_place: ['behind 1', 'in front of 1'],
  cello_thumb_place: ['in front of 1', 'behind 1'],
}

/** What was measured of an item, as one says it: `12 mm behind 1`, `31°`. */
export function measuredWords(itemId: string, value: number): string {
  if (setupMeasureOf(itemId)?.unit !== 'mm') return `${value}°`.replace('-', '−')
  const sides = THUMBS[itemId]
  if (!sides) return length(value, 0).replace('-', '−')
  if (Math.round(value) === 0) return 'opposite 1'
  return `${length(Math.abs(value), 0)} ${value > 0 ? sides[0] : sides[1]}`
}
