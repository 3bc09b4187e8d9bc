import { greatest } from 'd3-array'
import type { Evidence } from '../evidence'
import type { Kind } from './kind'

/** How far each string from the lowest shows it, and how steeply it grows from 1 to 4: with the lowest strings alone, or less on each. */
const WAYS = [
  { reach: [1, 0.5], steep: 1 },
  { reach: [1, 0.7, 0.4], steep: 1.5 },
] as const
/** Fewer strings from the lowest say nothing of an elbow. */
const LOWEST = 2
/** The finger that shows it in full. */
const LAST_FINGER = 4

/** Only the lowest strings are off, 4 worst: the elbow does not come round. */
export function elbow({ notes }: Evidence): Kind[] {
  const shown = greatest(
    notes.filter(({ target }) => target.stringIndex === 0),
    ({ target }) => target.finger,
  )
  // Without a string that is well nothing tells it from a hand.
  if (!shown || notes.every(({ target }) => target.stringIndex < LOWEST)) return []
  return WAYS.map(({ reach, steep }): Kind => {
    const part = (finger: number) => (finger / LAST_FINGER) ** steep
    return {
      id: 'elbow',
      sign: 1,
      moves: ({ target }) => -(reach[target.stringIndex] ?? 0) * part(target.finger),
      describe: (shortMm, plusMinusMm) => ({
        code: 'elbow',
        shortMm,
        plusMinusMm,
        finger: shown.target.finger,
        cents: -shortMm * part(shown.target.finger) * shown.centsPerMm,
      }),
    }
  })
}
