import { mean } from 'd3-array'
import type { Evidence } from '../evidence'
import { handsOf, type Kind } from './kind'

/** One finger off, the rest fine. An outer finger alone changes the distance from first to last, which is what a frame is. */
export function oneFinger(evidence: Evidence): Kind[] {
  const { notes, places } = evidence
  const fingers = [...new Set(notes.map(({ target }) => target.finger))].sort()
  const hands = [...handsOf(evidence).values()].filter((hand) => hand.length > 2)
  return fingers.map((finger): Kind => {
    const own = places.filter((place) => place.finger === finger)
    const worth = mean(notes, (note) => (note.target.finger === finger ? note.centsPerMm : undefined))!
    const hand = hands.find((h) => h[0]!.finger === finger || h.at(-1)!.finger === finger)
    const isOuter =
      hand !== undefined &&
      own.length > 0 &&
      hands.every(
        (h) => !h.some((p) => p.finger === finger) || h[0]!.finger === finger || h.at(-1)!.finger === finger,
      )
    return {
      id: `finger ${finger}`,
      moves: ({ target }) => (target.finger === finger ? 1 : 0),
      describe(offsetMm, plusMinusMm) {
        const cents = offsetMm * worth
        if (!hand || !isOuter) return { code: 'finger', finger, offsetMm, plusMinusMm, cents }
        const [first, last] = [hand[0]!, hand.at(-1)!]
        const isFirst = first.finger === finger
        return {
          code: 'frame',
          errorMm: isFirst ? -offsetMm : offsetMm,
          plusMinusMm,
          where: isFirst ? 'first' : 'last',
          fromFinger: first.finger,
          toFinger: last.finger,
          expectedMm: last.placeMm - first.placeMm,
          cents,
          shownBy: finger,
        }
      },
    }
  })
}
