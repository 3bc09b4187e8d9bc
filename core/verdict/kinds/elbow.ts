import { greatest } from 'd3-array'
import type { Evidence } from '../evidence'
import type { Kind } from './kind'

/** The lowest string in full, the next one by half, the others not. */
const REACH = [1, 0.5]
/** The finger that shows it in full. */
const LAST_FINGER = 4

/** Only the lowest strings are off, 4 worst: the elbow does not come round. */
export function elbow({ notes }: Evidence): Kind[] {
  const shown = greatest(
    notes.filter(({ target }) => target.stringIndex === 0),
    ({ target }) => target.finger,
  )
  // Without a string that is well nothing tells it from a hand.
  if (!shown || notes.every(({ target }) => target.stringIndex < REACH.length)) return []
  return [
    {
      id: 'elbow',
      sign: 1,
      moves: ({ target }) => -((REACH[target.stringIndex] ?? 0) * target.finger) / LAST_FINGER,
      describe: (shortMm, plusMinusMm) => ({
        code: 'elbow',
        shortMm,
        plusMinusMm,
        finger: shown.target.finger,
        cents: (-shortMm * shown.target.finger * shown.centsPerMm) / LAST_FINGER,
      }),
    },
  ]
}
