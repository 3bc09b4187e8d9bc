import type { Finger } from '../../instrument'
import type { Evidence } from '../evidence'
import { handId, handsOf, type Kind } from './kind'

type Pair = readonly [Finger, Finger]

/** A step of fewer cents is a half step. */
const HALF_STEP_CENTS = 150

/** Half steps too wide and whole steps too narrow, or the other way: the pattern is not clear. */
export function steps(evidence: Evidence): Kind[] {
  const hands = handsOf(evidence)
  const moves = new Map<string, number>()
  const halves = new Map<string, Pair>()
  const wholes = new Map<string, Pair>()
  for (const [id, hand] of hands) {
    let sum = 0
    hand.forEach((place, i) => {
      const before = hand[i - 1]
      if (before) {
        const isHalf = place.cents - before.cents < HALF_STEP_CENTS
        sum += isHalf ? 1 : -1
        const pair: Pair = [before.finger, place.finger]
        ;(isHalf ? halves : wholes).set(pair.join(' '), pair)
      }
      moves.set(`${id} ${place.cents}`, sum)
    })
  }
  // Where all steps are alike it is the frame that is wrong.
  if (halves.size === 0 || wholes.size === 0) return []
  // On several strings one pair may be both: then no pair is named.
  const areClear = ![...halves.keys()].some((pair) => wholes.has(pair))
  return [
    {
      id: 'steps',
      moves: ({ target }) => moves.get(`${handId(target)} ${target.cents}`) ?? 0,
      describe: (errorMm, plusMinusMm) => ({
        code: 'steps',
        errorMm,
        plusMinusMm,
        ...(areClear && { halves: [...halves.values()], wholes: [...wholes.values()] }),
      }),
    },
  ]
}
