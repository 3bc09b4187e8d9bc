import type { Evidence } from '../evidence'
import { handId, handsOf, type Kind } from './kind'

/** From 1 to 2 a whole step: the cello's hand is extended. */
const EXTENDED_CENTS = 150

/** An extended hand of the cello: 1 pinched up towards the others, or the others dragged back with it. */
export function extension(evidence: Evidence): Kind[] {
  if (!evidence.stringing.family.frames.some(({ opensBack }) => opensBack)) return []
  const extended = new Set(
    [...handsOf(evidence)]
      .filter(([, hand]) => {
        const [first, second] = [1, 2].map((finger) => hand.find((p) => p.finger === finger))
        return first && second && second.cents - first.cents > EXTENDED_CENTS
      })
      .map(([id]) => id),
  )
  if (extended.size === 0) return []
  const isIn = (target: Evidence['places'][number]) => extended.has(handId(target))
  return [
    {
      id: 'dragged',
      sign: 1,
      moves: ({ target }) => (isIn(target) && target.finger !== 1 ? -1 : 0),
      describe: (offsetMm, plusMinusMm) => ({ code: 'dragged', offsetMm, plusMinusMm }),
    },
    {
      id: 'pinched',
      sign: 1,
      moves: ({ target }) => (isIn(target) && target.finger === 1 ? 1 : 0),
      describe: (offsetMm, plusMinusMm) => ({ code: 'pinched', offsetMm, plusMinusMm }),
    },
  ]
}
