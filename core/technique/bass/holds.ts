import { THUMB, type Frame } from '../../instrument'
import { offsetsOf, type Hold } from '../framed/ways'
import type { PlacementContext } from '../types'

/** The highest place of 1 with the thumb behind the neck: 4 reaches the heel's side. From memory. */
const LAST_ON_NECK = 9
const FIRST_UPPER = 8
const OCTAVE = 12
const END = 40

const thumb = (id: string, first: number, second: number, third: number, opened = 0): Hold => ({
  id,
  offsets: [
    [THUMB, 0],
    [1, first],
    [2, second],
    [3, third],
  ],
  from: OCTAVE,
  to: END,
  thumbs: [0],
  effort: (base) => 0.4 + opened + (base === OCTAVE ? 0 : 0.4),
})

const BEYOND: readonly Hold[] = [
  {
    id: 'upper',
    offsets: [
      [1, 0],
      [2, 1],
      [3, 2],
    ],
    from: FIRST_UPPER,
    to: END,
    thumbs: [0],
    effort: (base) => (base <= LAST_ON_NECK ? 0.4 : base < OCTAVE ? 0.2 : 0.7),
  },
  thumb('thumb_whole', 2, 3, 4),
  thumb('thumb_fourth', 2, 4, 5, 0.4),
  thumb('thumb_half', 1, 2, 3),
]

/**
 * The hands of a bass player: 1 2 4, or four fingers, to the neck's heel; beyond it 1 2 3, and from the octave on the thumb
 * lies on the string. The hand never spans more than its frame. docs/trade.md § 9; common practice, no source.
 */
export function bassHolds({ family, frameIndex }: PlacementContext): readonly Hold[] {
  const frame = family.frames[frameIndex]!
  const known = made.get(frame)
  if (known) return known
  const neck: Hold = {
    id: 'neck',
    offsets: offsetsOf(frame.offsets),
    from: 1,
    to: LAST_ON_NECK,
    thumbs: [0],
    effort: () => 0,
  }
  const holds = [neck, ...BEYOND]
  made.set(frame, holds)
  return holds
}

const made = new WeakMap<Frame, readonly Hold[]>()
