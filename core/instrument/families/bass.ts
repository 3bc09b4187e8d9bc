import { INTERVALS, note } from '../../pitch'
import { tapesOf, type Family } from '../family'
import { SEMITONE_POSITIONS } from '../positions'
import { BASS_STRING_PER_BODY } from './body'

const { minorSecond, majorSecond, minorThird, majorThird } = INTERVALS

/** Sounding pitch; players read it an octave higher. The third finger rests with the fourth and plays no note of its own. */
export const bass: Family = {
  id: 'bass',
  name: 'bass',
  otherNames: ['double bass', 'string bass', 'contrabass'],
  tuning: ['E1', 'A1', 'D2', 'G2'].map(note),
  sizes: [
    { id: '4/4', typicalLengthMm: 1100 },
    { id: '3/4', typicalLengthMm: 1050 },
    { id: '1/2', typicalLengthMm: 970 },
    { id: '1/4', typicalLengthMm: 900 },
    { id: '1/8', typicalLengthMm: 800 },
  ].map((size) => ({ ...size, typicalBodyMm: size.typicalLengthMm / BASS_STRING_PER_BODY })),
  fingers: [1, 2, 4],
  shapes: [
    { id: 'first', positionId: 'first', fingers: { 1: majorSecond, 2: minorThird, 4: majorThird } },
    { id: 'half', positionId: 'half', fingers: { 1: minorSecond, 2: majorSecond, 4: minorThird } },
  ],
  defaultShapeId: 'first',
  forms: [
    { finger: 1, form: 'half', interval: minorSecond },
    { finger: 1, form: 'usual', interval: majorSecond },
    { finger: 2, form: 'usual', interval: minorThird },
    { finger: 4, form: 'usual', interval: majorThird },
  ],
  schools: [
    { id: 'none', marks: [] },
    { id: 'first', marks: tapesOf('first', 1) },
    { id: 'first_and_fourth', marks: tapesOf('first', 1, 4) },
    { id: 'half_and_first', marks: [...tapesOf('half', 1), ...tapesOf('first', 1)] },
  ],
  // In fourths no string stands out: the loudest ring.
  layStrings: [],
  defaultSchoolId: 'first_and_fourth',
  frames: [
    { id: 'one_two_four', semitones: 2, offsets: { 1: 0, 2: 1, 4: 2 } },
    { id: 'four_finger', semitones: 3, offsets: { 1: 0, 2: 1, 3: 2, 4: 3 } },
  ],
  hold: 'standing',
  hasFrets: false,
  positions: SEMITONE_POSITIONS,
  board: {
    stringLengthMm: 1050,
    lengthMm: 840,
    nutWidthMm: 44,
    endWidthMm: 86,
    spreadAtNutMm: 31,
    spreadAtBridgeMm: 81,
    girthAtNutMm: 145,
    girthAtNeckEndMm: 190,
    neckMm: 430,
  },
  typicalPressing: { nutHeightMm: 1, endHeightMm: 9, material: 'steel' },
  sound: {
    airHz: 62,
    cornerHz: 1100,
    stiffness: 1e-4,
    ringsS: 1.3,
    bowSpeaksS: 0.045,
    uneven: {
      scoop: { meanCents: -40, sigmaCents: 45, fallsS: 0.1 },
      jitterCents: 2.5,
      hiss: 0.06,
      swingDb: 0.8,
    },
  },
}
