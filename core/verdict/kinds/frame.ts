import { greatest } from 'd3-array'
import { centsPerMmOnString } from '../../instrument'
import type { Evidence, EvidenceNote } from '../evidence'
import { handId, handsOf, type Kind } from './kind'

/** The distance from first to last finger is wrong by an amount that grows along the hand; whichever end stands still, or the middle. */
export function frame(evidence: Evidence): Kind[] {
  const hands = handsOf(evidence)
  /** Where a note lies between the ends of its hand, 0 … 1; null of one that no hand of the exercise holds, or a hand of one place. */
  const along = ({ target }: Pick<EvidenceNote, 'target'>) => {
    const hand = hands.get(handId(target)) ?? []
    const [first, last] = [hand[0], hand.at(-1)]
    const width = first && last ? last.placeMm - first.placeMm : 0
    return first && width > 0 ? (target.placeMm - first.placeMm) / width : null
  }
  /** What a frame that is wider by 1 moves it by. */
  const moved = (place: Pick<EvidenceNote, 'target'>, still: number) => {
    const part = along(place)
    return part === null ? 0 : part - still
  }
  const widest = greatest(hands.values(), (hand) => hand.length)
  const [first, last] = [widest?.[0], widest?.at(-1)]
  if (!first || !last || first === last) return []
  const { stringing } = evidence
  return [0, 0.5, 1].map((still): Kind => {
    const shown = still === 1 ? first : last
    return {
      id: 'frame',
      moves: (note) => moved(note, still),
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
          moved({ target: shown }, still) *
          centsPerMmOnString(stringing, shown.stringIndex, shown.placeMm),
        shownBy: shown.finger,
      }),
    }
  })
}
