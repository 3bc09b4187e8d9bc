import type { Evidence } from '../evidence'
import { handId, handsOf, type Kind } from './kind'

/** A step of fewer cents is a half step. */
const HALF_STEP_CENTS = 150

/** Half steps too wide and whole steps too narrow, or the other way: the pattern is not clear. */
export function steps(evidence: Evidence): Kind[] {
  const hands = handsOf(evidence)
  const moves = new Map<string, number>()
  let [halves, wholes] = [0, 0]
  for (const [id, hand] of hands) {
    let sum = 0
    hand.forEach((place, i) => {
      const before = hand[i - 1]
      if (before) {
        const isHalf = place.cents - before.cents < HALF_STEP_CENTS
        sum += isHalf ? 1 : -1
        if (isHalf) halves++
        else wholes++
      }
      moves.set(`${id} ${place.cents}`, sum)
    })
  }
  // Where all steps are alike it is the frame that is wrong.
  if (halves === 0 || wholes === 0) return []
  return [
    {
      id: 'steps',
      moves: ({ target }) => moves.get(`${handId(target)} ${target.cents}`) ?? 0,
      describe: (errorMm, plusMinusMm) => ({ code: 'steps', errorMm, plusMinusMm }),
    },
  ]
}
