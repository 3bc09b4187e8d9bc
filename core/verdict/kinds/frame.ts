import { greatest } from 'd3-array'
import { centsPerMmOnString } from '../../instrument'
import type { Evidence, EvidenceNote } from '../evidence'
import { handId, handsOf, type Kind } from './kind'

/**
 * The distance from first to last finger is wrong by an amount that grows along the hand: whichever end stands still, or the middle;
 * evenly, or the more the further out.
 */
export function frame(evidence: Evidence): Kind[] {
  const hands = handsOf(evidence)
  /** Where a note lies between the ends of its hand, 0 … 1; null of one that no hand of the exercise holds, or a hand of one place. */
  const along = ({ target }: Pick<EvidenceNote, 'target'>) => {
    const hand = hands.get(handId(target)) ?? []
    const [first, last] = [hand[0], hand.at(-1)]
    const width = first && last ? last.placeMm - first.placeMm : 0
    return first && width > 0 ? (target.placeMm - first.placeMm) / width : null
  }
  const widest = greatest(hands.values(), (hand) => hand.length)
  const [first, last] = [widest?.[0], widest?.at(-1)]
  if (!first || !last || first.finger === last.finger) return []
  const { stringing } = evidence
  /** Where a frame that is wider by 1 takes a note, mm: 0 of one that no hand holds. */
  const ways: ((place: Pick<EvidenceNote, 'target'>) => number)[] = [
    ...[0, 0.5, 1].map((still) => onlyWith(along, (part) => part - still)),
    // A hand that turns about its first finger takes the last one furthest: its root goes from the strings, and it has to stretch.
    onlyWith(along, (part) => part ** TURNS),
    // Roots that crowd bring each finger towards the middle of the hand, whatever the steps between their notes.
    onlyWith(
      along,
      (_, { target }) => (target.finger - (first.finger + last.finger) / 2) / (last.finger - first.finger),
    ),
  ]
  return ways.map((moved): Kind => {
    const shown = moved({ target: last }) === 0 ? first : last
    return {
      id: 'frame',
      moves: moved,
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
          moved({ target: shown }) *
          centsPerMmOnString(stringing, shown.stringIndex, shown.placeMm),
        shownBy: shown.finger,
      }),
    }
  })
}

/** How much more the far end of a turned hand moves than its middle: an exponent. By geometry of the hand of bones. */
const TURNS = 2

type Place = Pick<EvidenceNote, 'target'>
/** Of notes that a hand of the exercise holds; the others are not moved. */
function onlyWith(
  along: (place: Place) => number | null,
  move: (part: number, place: Place) => number,
): (place: Place) => number {
  return (place) => {
    const part = along(place)
    return part === null ? 0 : move(part, place)
  }
}
