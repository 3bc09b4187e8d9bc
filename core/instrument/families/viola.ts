import { note } from '../../pitch'
import type { Family, Size } from '../family'
import { MM_PER_UNIT } from '../length'
import { STRING_PER_BODY } from './body'
import { upperHand } from './violin'

/** Violas go by body length. */
function byBody(inches: number): Size {
  const bodyMm = inches * MM_PER_UNIT.in
  return {
    id: `${inches} in`,
    typicalLengthMm: Math.round(bodyMm * STRING_PER_BODY),
    typicalBodyMm: bodyMm,
  }
}

export const viola: Family = {
  id: 'viola',
  ...upperHand,
  tuning: ['C3', 'G3', 'D4', 'A4'].map(note),
  sizes: [17.5, 17, 16.5, 16, 15.5, 15, 14, 13, 12, 11].map(byBody),
  board: {
    stringLengthMm: 371,
    lengthMm: 308,
    nutWidthMm: 25,
    endWidthMm: 46,
    spreadAtNutMm: 17.5,
    spreadAtBridgeMm: 37,
    girthAtNutMm: 74,
    girthAtNeckEndMm: 88,
    neckMm: 150,
  },
  typicalPressing: { nutHeightMm: 0.5, endHeightMm: 5, material: 'synthetic' },
}
