import { THUMB } from '../../instrument'
import type { Hold } from '../framed/ways'

/** Where the thumb meets the neck's heel: 1 in fourth position. */
const HEEL = 7
const OCTAVE = 12
const END = 40

/** 1 2 3, half or whole steps between them, as the key asks. */
const upper = (id: string, offsets: Hold['offsets']): Hold => ({
  id,
  offsets,
  from: HEEL + 1,
  to: END,
  thumbs: [0],
  effort: (base) => (base > OCTAVE ? 0.6 : 0.1),
})

/** Thumb and 3 a perfect fourth apart at rest. */
const thumb = (id: string, first: number, others: Hold['offsets'], effort = 0): Hold => ({
  id,
  offsets: [[THUMB, 0], [1, first], ...others],
  from: OCTAVE,
  to: END,
  thumbs: [0],
  effort: (base) => effort + (base === OCTAVE ? 0.2 : 0.5),
})

/**
 * The hands of a cellist. 1 to 4 up to the fourth position, closed or extended; above it 1 2 3, the thumb leaving the heel;
 * from the octave on the thumb lies on the string. docs/trade.md § 9; common practice, no source.
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
  upper('upper', [
    [1, 0],
    [2, 2],
    [3, 3],
    [3, 4],
  ]),
  upper('upper_half', [
    [1, 0],
    [2, 1],
    [3, 2],
    [3, 3],
  ]),
  thumb('thumb', 2, [
    [2, 3],
    [2, 4],
    [3, 5],
  ]),
  thumb('thumb_half', 1, [
    [2, 3],
    [3, 4],
    [3, 5],
  ]),
  thumb(
    'thumb_wide',
    2,
    [
      [2, 4],
      [3, 6],
    ],
    0.4,
  ),
]
