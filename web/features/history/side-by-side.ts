import {
  isSamePlace,
  landedPlaces,
  landingAtCents,
  noteName,
  takeOfRecord,
  type LandedPlace,
  type Landing,
  type Stringing,
  type Take,
  type Digit,
} from '#core'
import type { Check } from '#contracts'
import type { BoardLanding } from '../../board/board'
import { landingsOnBoard } from '../../board/landings'

/** Two checks on the board of the later one, place by place. */
export interface SideBySide {
  readonly stringing: Stringing
  /** The strings of the earlier were others: its landings are laid on the later’s by their cents. */
  readonly isMoved: boolean
  readonly before: readonly BoardLanding[]
  readonly after: readonly BoardLanding[]
  readonly rows: readonly SideRow[]
}

export interface SideRow {
  readonly id: string
  readonly stringIndex: number
  readonly finger: Digit
  readonly note: LandedPlace['target']['note']
  readonly earlier: LandedPlace | undefined
  readonly later: LandedPlace | undefined
}

/** Undefined where one of the two can no longer be read. */
export function sideBySide(earlier: Check, later: Check): SideBySide | undefined {
  const [first, second] = [takeOfRecord(earlier), takeOfRecord(later)]
  if (!first || !second || first.stringing.family.id !== second.stringing.family.id) return undefined
  const { stringing } = second
  const isMoved = first.stringing.lengthsMm.some(
    (mm, i) => Math.abs(mm - (stringing.lengthsMm[i] ?? 0)) > 0.05,
  )
  const places = [laidOn(stringing, first), landedPlaces(stringing, second.landings)] as const
  const targets = [...places[1], ...places[0]].map(({ target }) => target)
  const rows = targets
    .filter((target, i) => target.finger !== 0 && targets.findIndex((t) => isSamePlace(t, target)) === i)
    .map((target): SideRow => {
      const of = (landed: readonly LandedPlace[]) => landed.find((one) => isSamePlace(one.target, target))
      const { stringIndex, finger, note, positionId } = target
      return {
        id: [stringIndex, finger, noteName(note), positionId].join(' '),
        stringIndex,
        finger,
        note,
        earlier: of(places[0]),
        later: of(places[1]),
      }
    })
    .sort((a, b) => a.stringIndex - b.stringIndex || a.finger - b.finger)
  return {
    stringing,
    isMoved,
    before: landingsOnBoard(stringing, places[0], earlier.toleranceCents),
    after: landingsOnBoard(stringing, places[1], later.toleranceCents),
    rows,
  }
}

/** A take on other strings of the same kind: the same notes, as many cents off. */
function laidOn(stringing: Stringing, take: Take): LandedPlace[] {
  const landings = take.landings.flatMap(({ cents, ...landing }): Landing[] =>
    landing.stringIndex < stringing.tuning.length ? [landingAtCents(stringing, landing, cents, landing)] : [],
  )
  return landedPlaces(stringing, landings)
}
