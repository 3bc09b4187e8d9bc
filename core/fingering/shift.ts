import { placeOfNote, type Finger, type Position, type Stringing } from '../instrument'
import { midiNumber, type Note } from '../pitch'
import type { Key } from '../key'
import { placementAt } from '../pattern'
import type { Placement, PlacementContext } from '../technique'

/** One hand moving from a position to another on one string. */
export interface Shift {
  readonly from: Placement
  readonly to: Placement
  /** The finger that keeps touching the string and leads the hand. */
  readonly guide: Finger
  readonly guideFromMm: number
  readonly guideToMm: number
  /** How far the guide travels, towards the bridge; negative towards the nut. */
  readonly distanceMm: number
  /** Notes under the hand before and after, on any string. */
  readonly staying: readonly StayingNote[]
}

export interface StayingNote {
  readonly note: Note
  readonly before: { readonly stringIndex: number; readonly finger: Finger }
  readonly after: { readonly stringIndex: number; readonly finger: Finger }
}

export type ShiftResult =
  | { readonly ok: true; readonly shift: Shift }
  | { readonly ok: false; readonly code: 'no_hand'; readonly position: Position }
  | {
      readonly ok: false
      readonly code: 'finger_missing'
      readonly finger: Finger
      readonly position: Position
    }

export interface ShiftRequest {
  readonly key: Key
  readonly stringIndex: number
  readonly from: Position
  readonly to: Position
  /** Played last before the shift. */
  readonly fromFinger: Finger
  readonly toFinger: Finger
}

/**
 * A shift in a key. The guide is the finger played last before it: it slides lightly to its own place in the new position,
 * and then the finger that plays comes down. Common practice, no source. Where the new hand has no such finger, the one
 * that plays leads. Places are mm from the nut, as the stringing puts them.
 */
export function shiftBetween(
  context: PlacementContext,
  stringing: Stringing,
  { key, stringIndex, from, to, fromFinger, toFinger }: ShiftRequest,
): ShiftResult {
  const [before, after] = [from, to].map((position) => placementAt(context, key, stringIndex, position))
  if (before?.kind !== 'placement') return { ok: false, code: 'no_hand', position: from }
  if (after?.kind !== 'placement') return { ok: false, code: 'no_hand', position: to }
  const placeOf = (hand: Placement, finger: Finger) => {
    const stop = hand.stops.find((s) => s.finger === finger)
    return stop && placeOfNote(stringing, stringIndex, stop.note)
  }
  if (placeOf(before, fromFinger) === undefined)
    return { ok: false, code: 'finger_missing', finger: fromFinger, position: from }
  if (placeOf(after, toFinger) === undefined)
    return { ok: false, code: 'finger_missing', finger: toFinger, position: to }
  const guide = [fromFinger, toFinger].find(
    (finger) => placeOf(before, finger) !== undefined && placeOf(after, finger) !== undefined,
  )
  if (guide === undefined) return { ok: false, code: 'finger_missing', finger: fromFinger, position: to }
  const [guideFromMm, guideToMm] = [placeOf(before, guide)!, placeOf(after, guide)!]
  return {
    ok: true,
    shift: {
      from: before,
      to: after,
      guide,
      guideFromMm,
      guideToMm,
      distanceMm: guideToMm - guideFromMm,
      staying: stayingNotes(context, key, from, to),
    },
  }
}

/** Notes that both positions have under the hand, on any string, lowest first. */
function stayingNotes(context: PlacementContext, key: Key, from: Position, to: Position): StayingNote[] {
  const under = (position: Position) =>
    context.tuning.flatMap((_, stringIndex) => {
      const cell = placementAt(context, key, stringIndex, position)
      return cell.kind === 'placement'
        ? cell.stops.map(({ note, finger }) => ({ note, stringIndex, finger }))
        : []
    })
  const after = under(to)
  return under(from)
    .flatMap(({ note, ...before }) => {
      const same = after.find((s) => midiNumber(s.note) === midiNumber(note))
      return same ? [{ note, before, after: { stringIndex: same.stringIndex, finger: same.finger } }] : []
    })
    .sort((a, b) => midiNumber(a.note) - midiNumber(b.note))
}
