import { INTERVALS, note } from '../../pitch'
import { tapesOf, type Family } from '../family'
import { LETTER_POSITIONS } from '../positions'
import { STRING_PER_BODY } from './body'

const { minorSecond, majorSecond, minorThird, majorThird, perfectFourth, augmentedFourth } = INTERVALS

export const cello: Family = {
  id: 'cello',
  name: 'cello',
  otherNames: ['violoncello'],
  tuning: ['C2', 'G2', 'D3', 'A3'].map(note),
  sizes: [
    { id: '4/4', typicalLengthMm: 690 },
    { id: '7/8', typicalLengthMm: 655 },
    { id: '3/4', typicalLengthMm: 620 },
    { id: '1/2', typicalLengthMm: 550 },
    { id: '1/4', typicalLengthMm: 490 },
    { id: '1/8', typicalLengthMm: 435 },
    { id: '1/10', typicalLengthMm: 400 },
    { id: '1/16', typicalLengthMm: 355 },
  ].map((size) => ({ ...size, typicalBodyMm: size.typicalLengthMm / STRING_PER_BODY })),
  fingers: [1, 2, 3, 4],
  shapes: [
    {
      id: 'first',
      positionId: 'first',
      fingers: { 1: majorSecond, 2: minorThird, 3: majorThird, 4: perfectFourth },
    },
    {
      id: 'half',
      positionId: 'half',
      fingers: { 1: minorSecond, 2: majorSecond, 3: minorThird, 4: majorThird },
    },
    {
      id: 'extended_back',
      positionId: 'first',
      fingers: { 1: minorSecond, 2: minorThird, 3: majorThird, 4: perfectFourth },
    },
    {
      id: 'extended_forward',
      positionId: 'first',
      fingers: { 1: majorSecond, 2: majorThird, 3: perfectFourth, 4: augmentedFourth },
    },
  ],
  defaultShapeId: 'first',
  forms: [
    { finger: 1, form: 'low', interval: minorSecond },
    { finger: 1, form: 'usual', interval: majorSecond },
    { finger: 2, form: 'usual', interval: minorThird },
    { finger: 3, form: 'usual', interval: majorThird },
    { finger: 4, form: 'usual', interval: perfectFourth },
    { finger: 4, form: 'high', interval: augmentedFourth },
  ],
  schools: [
    { id: 'none', marks: [] },
    { id: 'first', marks: tapesOf('first', 1) },
    { id: 'first_and_fourth', marks: tapesOf('first', 1, 4) },
    { id: 'first_third_fourth', marks: tapesOf('first', 1, 3, 4) },
    { id: 'every', marks: tapesOf('first', 1, 2, 3, 4) },
  ],
  // The strings of a viola an octave lower ring alike: 1 on G with open A, 1 on C with open D. Derived.
  layStrings: [1, 0],
  defaultSchoolId: 'first_and_fourth',
  frames: [
    { id: 'closed', semitones: 3, offsets: { 1: 0, 2: 1, 3: 2, 4: 3 } },
    { id: 'extended', semitones: 4, offsets: { 1: 0, 2: 2, 3: 3, 4: 4 }, opensBack: true },
  ],
  hold: 'knees',
  hasFrets: false,
  positions: LETTER_POSITIONS,
  board: {
    stringLengthMm: 690,
    lengthMm: 580,
    nutWidthMm: 32,
    endWidthMm: 63,
    spreadAtNutMm: 22,
    spreadAtBridgeMm: 47,
    girthAtNutMm: 98,
    girthAtNeckEndMm: 122,
    neckMm: 280,
  },
  typicalPressing: { nutHeightMm: 0.7, endHeightMm: 6.5, material: 'steel' },
  sound: {
    airHz: 100,
    cornerHz: 2000,
    stiffness: 6e-5,
    ringsS: 0.8,
    bowSpeaksS: 0.035,
    uneven: {
      scoop: { meanCents: -14, sigmaCents: 28, fallsS: 0.055 },
      jitterCents: 1.2,
      hiss: 0.03,
      swingDb: 1.3,
    },
  },
}
