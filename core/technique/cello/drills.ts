import { ONE_TWO_ONE, OPEN_AND_FIRST, PATTERN, chromaticFingers, withFingers } from '../drill'
import type { Drill } from '../types'

export const drillsOfCello: readonly Drill[] = [
  OPEN_AND_FIRST,
  ONE_TWO_ONE,
  {
    // Every finger on its semitone, whatever the key: the closed hand itself.
    id: 'one_two_three_two',
    times: 8,
    notes(hand, neighbours) {
      const base = hand.extension === 'back' ? hand.base + 1 : hand.base
      return chromaticFingers(hand, base, [1, 2, 3, 2], neighbours)
    },
  },
  PATTERN,
  {
    id: 'extended_first',
    times: 8,
    notes(hand, { open }) {
      if (hand.extension !== 'back') return 'not_extended'
      const between = hand.stops.find((s) => s.finger === 2) ? 2 : 3
      return withFingers(hand, [1, between, 1, 4], open)
    },
  },
]
