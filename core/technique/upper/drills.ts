import { midiNumber } from '../../pitch'
import { octaveDrill, ONE_TWO_ONE, OPEN_AND_FIRST, PATTERN, stopped, withFingers } from '../drill'
import type { Drill } from '../types'

export const drillsOfUpper: readonly Drill[] = [
  OPEN_AND_FIRST,
  ONE_TWO_ONE,
  {
    id: 'one_two_three_two',
    times: 8,
    notes: (hand, { open }) => withFingers(hand, [1, 2, 3, 2], open),
  },
  PATTERN,
  {
    id: 'fourth_against_open',
    times: 8,
    notes(hand, { openAbove }) {
      const fourth = hand.stops.find((s) => s.finger === 4)
      if (!fourth) return 'fingers_missing'
      // It must be the next string itself: any other rings, but is not what the finger is set against.
      if (!openAbove || midiNumber(fourth.note) !== midiNumber(openAbove)) return 'no_such_open_string'
      const above = hand.stringIndex + 1
      return [stopped(hand, fourth), { note: openAbove, stringIndex: above, finger: 0, semitones: 0 }]
    },
  },
  octaveDrill(1),
]
