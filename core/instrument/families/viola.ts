import { note } from '../../pitch'
import type { Family, Size } from '../family'
import { upperHand } from './violin'

const INCH_MM = 25.4

/**
 * Violas go by body length. The string is about 0.914 of the body: body stop about 0.5485 of the body and the neck two
 * thirds of the stop, 0.5485 · 5/3 = 0.914. From memory.
 */
const STRING_PER_BODY = 0.914

function byBody(inches: number): Size {
  const bodyMm = inches * INCH_MM
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
  sizes: [16.5, 16, 15.5, 15, 14, 13, 12].map(byBody),
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
