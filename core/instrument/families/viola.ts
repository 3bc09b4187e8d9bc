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
  name: 'viola',
  otherNames: [],
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
  sound: {
    airHz: 220,
    cornerHz: 3000,
    stiffness: 5e-5,
    ringsS: 0.45,
    bowSpeaksS: 0.025,
    uneven: {
      scoop: { meanCents: -24, sigmaCents: 30, fallsS: 0.042 },
      jitterCents: 1,
      hiss: 0.04,
      swingDb: 1.2,
    },
  },
}
