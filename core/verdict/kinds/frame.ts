import { greatest } from 'd3-array'
import { centsPerMmOnString } from '../../instrument'
import type { Evidence, EvidenceNote } from '../evidence'
import { handId, handsOf, type Kind } from './kind'

/** The distance from first to last finger is wrong by an amount that grows along the hand; whichever end stands still, or the middle. */
export function frame(evidence: Evidence): Kind[] {
  const hands = handsOf(evidence)
  const along = ({ target }: Pick<EvidenceNote, 'target'>) => {
    const hand = hands.get(handId(target))!
    const [first, last] = [hand[0]!, hand.at(-1)!]
    const width = last.placeMm - first.placeMm
    return width > 0 ? (target.placeMm - first.placeMm) / width : 0
  }
  const widest = greatest(hands.values(), (hand) => hand.length)
  const [first, last] = [widest?.[0], widest?.at(-1)]
  if (!first || !last || first === last) return []
  const { stringing } = evidence
  return [0, 0.5, 1].map((still): Kind => {
    const shown = still === 1 ? first : last
    return {
      id: 'frame',
      moves: (note) => along(note) - still,
      describe: (errorMm, plusMinusMm) => ({
        code: 'frame',
        errorMm,
        plusMinusMm,
        where: 'across',
        fromFinger: first.finger,
        toFinger: last.finger,
        expectedMm: last.placeMm - first.placeMm,
        cents:
          errorMm *
          (along({ target: shown }) - still) *
          centsPerMmOnString(stringing, shown.stringIndex, shown.placeMm),
        shownBy: shown.finger,
      }),
    }
  })
}
