import { INTERVALS, note } from '../../pitch'
import { tapesOf, type Family, type FingerForm, type HandShape, type TapeSchool } from '../family'
import { LETTER_POSITIONS } from '../positions'

const {
  minorSecond,
  majorSecond,
  minorThird,
  majorThird,
  perfectFourth,
  augmentedFourth,
  diminishedFifth,
  perfectFifth,
  augmentedFifth,
} = INTERVALS

/** Violin and viola share the hand: a perfect fourth from 1 to 4 in every position. Common practice, no source. */
export const upperHand = {
  fingers: [1, 2, 3, 4],
  shapes: [
    {
      id: 'first',
      positionId: 'first',
      fingers: { 1: majorSecond, 2: majorThird, 3: perfectFourth, 4: perfectFifth },
    },
    {
      id: 'first_low_2',
      positionId: 'first',
      fingers: { 1: majorSecond, 2: minorThird, 3: perfectFourth, 4: perfectFifth },
    },
  ] satisfies HandShape[],
  defaultShapeId: 'first',
  forms: [
    { finger: 1, form: 'low', interval: minorSecond },
    { finger: 1, form: 'usual', interval: majorSecond },
    { finger: 2, form: 'low', interval: minorThird },
    { finger: 2, form: 'usual', interval: majorThird },
    { finger: 3, form: 'usual', interval: perfectFourth },
    { finger: 3, form: 'high', interval: augmentedFourth },
    { finger: 4, form: 'low', interval: diminishedFifth },
    { finger: 4, form: 'usual', interval: perfectFifth },
    { finger: 4, form: 'high', interval: augmentedFifth },
  ] satisfies FingerForm[],
  schools: [
    { id: 'none', marks: [] },
    { id: 'first', marks: tapesOf('first', 1) },
    { id: 'first_and_third', marks: tapesOf('first', 1, 3) },
    { id: 'every', marks: tapesOf('first', 1, 2, 3, 4) },
  ] satisfies TapeSchool[],
  defaultSchoolId: 'first_and_third',
  // docs/trade.md § 3: D first (1 = E rings with open E), then G (A rings with open A); on the viola the same a fifth lower.
  layStrings: [1, 0],
  frames: [{ id: 'fourth', semitones: 5, offsets: { 1: 0, 2: 2, 3: 3, 4: 5 } }],
  hold: 'shoulder',
  hasFrets: false,
  positions: LETTER_POSITIONS,
} as const

export const violin: Family = {
  id: 'violin',
  name: 'violin',
  otherNames: [],
  ...upperHand,
  tuning: ['G3', 'D4', 'A4', 'E5'].map(note),
  sizes: [
    { id: '4/4', typicalLengthMm: 328 },
    { id: '7/8', typicalLengthMm: 317 },
    { id: '3/4', typicalLengthMm: 308 },
    { id: '1/2', typicalLengthMm: 285 },
    { id: '1/4', typicalLengthMm: 255 },
    { id: '1/8', typicalLengthMm: 227 },
    { id: '1/10', typicalLengthMm: 215 },
    { id: '1/16', typicalLengthMm: 197 },
    { id: '1/32', typicalLengthMm: 178 },
  ].map((size) => ({ ...size, typicalBodyMm: size.typicalLengthMm / 0.92 })),
  board: {
    stringLengthMm: 328,
    lengthMm: 270,
    nutWidthMm: 24,
    endWidthMm: 42,
    spreadAtNutMm: 16.5,
    spreadAtBridgeMm: 34,
    girthAtNutMm: 68,
    girthAtNeckEndMm: 80,
    neckMm: 130,
  },
  typicalPressing: { nutHeightMm: 0.4, endHeightMm: 4, material: 'synthetic' },
  sound: {
    airHz: 270,
    cornerHz: 3600,
    stiffness: 4e-5,
    ringsS: 0.35,
    bowSpeaksS: 0.02,
    uneven: {
      scoop: { meanCents: -35, sigmaCents: 30, fallsS: 0.03 },
      jitterCents: 0.8,
      hiss: 0.045,
      swingDb: 1.2,
    },
  },
}
