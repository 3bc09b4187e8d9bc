import { INTERVALS, note } from '../../pitch'
import { tapesOf, type Family, type HandShape, type TapeSchool } from '../family'

const { majorSecond, minorThird, majorThird, perfectFourth, perfectFifth } = INTERVALS

/** Violin and viola share the hand: a perfect fourth from 1 to 4 in every position. Common practice, no source. */
export const upperHand = {
  fingers: [1, 2, 3, 4],
  shapes: [
    { id: 'first', fingers: { 1: majorSecond, 2: majorThird, 3: perfectFourth, 4: perfectFifth } },
    { id: 'first_low_2', fingers: { 1: majorSecond, 2: minorThird, 3: perfectFourth, 4: perfectFifth } },
  ] satisfies HandShape[],
  defaultShapeId: 'first',
  schools: [
    { id: 'none', marks: [] },
    { id: 'first', marks: tapesOf('first', 1) },
    { id: 'first_and_third', marks: tapesOf('first', 1, 3) },
    { id: 'every', marks: tapesOf('first', 1, 2, 3, 4) },
  ] satisfies TapeSchool[],
  defaultSchoolId: 'first_and_third',
  frames: [{ id: 'fourth', semitones: 5 }],
  positions: [
    { id: 'first', firstFingerSemitones: [1, 2] },
    { id: 'second', firstFingerSemitones: [3, 4] },
    { id: 'third', firstFingerSemitones: [5] },
    { id: 'fourth', firstFingerSemitones: [7] },
  ],
} as const

export const violin: Family = {
  id: 'violin',
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
  },
}
