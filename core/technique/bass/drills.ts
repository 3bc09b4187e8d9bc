import type { Finger } from '../../instrument'
import { chromaticFingers, octaveDrill, ONE_TWO_ONE, OPEN_AND_FIRST, PATTERN } from '../drill'
import type { Drill, DrillNeighbours } from '../types'

/** The same with the fingers of the school: 3 plays a note of its own where it has one. */
function fingersOf({ offsets }: DrillNeighbours): readonly Finger[] {
  return offsets[3] === undefined ? [1, 2, 4] : [1, 2, 3, 4]
}

export const drillsOfBass: readonly Drill[] = [
  OPEN_AND_FIRST,
  ONE_TWO_ONE,
  PATTERN,
  {
    // With four fingers 3 has a semitone of its own.
    id: 'one_two_three_two',
    times: 8,
    notes: (hand, neighbours) => chromaticFingers(hand, hand.base, [1, 2, 3, 2], neighbours),
  },
  {
    id: 'bass_roll',
    across: 'down',
    times: 2,
    notes(hand, neighbours) {
      const [first, ...others] = fingersOf(neighbours)
      const back = others.slice(0, -1).reverse()
      return chromaticFingers(
        hand,
        hand.base,
        [first!, ...others, ...back, first!, others.at(-1)!, others[0]!, others.at(-1)!],
        neighbours,
      )
    },
  },
  {
    id: 'up_from_open',
    across: 'up',
    times: 1,
    notes(hand, neighbours) {
      const fingers = fingersOf(neighbours)
      const back = fingers.slice(0, -1).reverse()
      return chromaticFingers(hand, hand.base, [0, ...fingers, ...back, 0], neighbours)
    },
  },
  octaveDrill(2),
]
