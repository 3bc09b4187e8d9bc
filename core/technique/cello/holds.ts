import { THUMB } from '../../instrument'
import type { Hold } from '../framed/ways'

/** Where the thumb meets the neck's heel: 1 in fourth position. */
const HEEL = 7
const OCTAVE = 12
const END = 40

/** 1 2 3 of the octave below the thumb: half or whole steps between them, as the key asks. */
const UPPER: Hold['offsets'] = [
  [1, 0],
  [2, 1],
  [2, 2],
  [3, 2],
  [3, 3],
  [3, 4],
]

/** Thumb and 3 a perfect fourth apart at rest. */
const THUMB_HAND: Hold['offsets'] = [
  [THUMB, 0],
  [1, 1],
  [1, 2],
  [2, 2],
  [2, 3],
  [2, 4],
  [3, 4],
  [3, 5],
  [3, 6],
]

/**
 * The hands of a cellist. 1 to 4 up to the fourth position, closed or extended; above it 1 2 3, the thumb leaving the heel;
 * from the octave on the thumb lies on the string. Handbook, section 9; common practice, no source.
 */
export const CELLO_HOLDS: readonly Hold[] = [
  {
    id: 'closed',
    offsets: [
      [1, 0],
      [2, 1],
      [3, 2],
      [4, 3],
    ],
    from: 1,
    to: HEEL,
    thumbs: [0],
    effort: () => 0,
  },
  {
    id: 'extended',
    offsets: [
      [1, 0],
      [2, 2],
      [3, 3],
      [4, 4],
    ],
    from: 1,
    to: HEEL,
    // The thumb stays behind when 1 drops back, and comes along when the others move up.
    thumbs: [0, 1],
    effort: (base) => (base === HEEL ? 0.9 : 0.45),
  },
  {
    id: 'upper',
    offsets: UPPER,
    from: HEEL + 1,
    to: END,
    thumbs: [0],
    effort: (base) => (base > OCTAVE ? 0.6 : 0.1),
  },
  {
    id: 'thumb',
    offsets: THUMB_HAND,
    from: OCTAVE,
    to: END,
    thumbs: [0],
    effort: (base) => (base === OCTAVE ? 0.2 : 0.5),
  },
]
