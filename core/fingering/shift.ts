import { placeOfNote, type Finger, type Position, type Stringing } from '../instrument'
import type { Key } from '../key'
import { midiNumber, type Note } from '../pitch'
import { placementAt } from '../pattern'
import {
  ownPlace,
  spelledIn,
  type Extension,
  type FingerStop,
  type Placement,
  type PlacementContext,
} from '../technique'

/** One hand moving from a position to another on one string. */
export interface Shift {
  readonly from: Placement
  readonly to: Placement
  /** The finger that keeps touching the string and leads the hand; undefined where an open string sounds meanwhile: the hand moves freely. */
  readonly guide: Finger | undefined
  /** Of the guide, or without one of the first finger. */
  readonly guideFromMm: number
  readonly guideToMm: number
  /** How far the hand travels, towards the bridge; negative towards the nut. */
  readonly distanceMm: number
  /** Whether the guide lies on a note of the key before and after: then the ear checks it on the way. */
  readonly isGuideInKey: { readonly before: boolean; readonly after: boolean }
  /** How the hand opens when it arrives. */
  readonly opens: Extension
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
  /** The position, or a finger in it, lies past the end of the board. */
  | { readonly ok: false; readonly code: 'off_board'; readonly position: Position }

export interface ShiftRequest {
  readonly key: Key
  readonly stringIndex: number
  readonly from: Position
  readonly to: Position
  /** Played last before the shift; 0 the open string. */
  readonly fromFinger: Finger | 0
  readonly toFinger: Finger
}

/**
 * A shift in a key. The guide is the finger played last before it: it slides lightly to its own place in the new position,
 * and then the finger that plays comes down. Common practice, no source. A finger that has no note of the key lies where the
 * frame has it: it guides all the same. Places are mm from the nut, as the stringing puts them.
 */
export function shiftBetween(
  context: PlacementContext,
  stringing: Stringing,
  { key, stringIndex, from, to, fromFinger, toFinger }: ShiftRequest,
): ShiftResult {
  const hands = [from, to].map((position) => wholeHand(context, key, stringIndex, position))
  const far = hands.findIndex((hand) => hand.stops.at(-1)!.semitones > context.lastSemitone)
  if (far >= 0) return { ok: false, code: 'off_board', position: far === 0 ? from : to }
  const [before, after] = hands as [Placement, Placement]
  const stopOf = (hand: Placement, finger: Finger) => hand.stops.find((s) => s.finger === finger)!
  const guide = fromFinger === 0 ? undefined : fromFinger
  const led = guide ?? 1
  const [there, here] = [stopOf(before, led), stopOf(after, led)]
  const [guideFromMm, guideToMm] = [there, here].map(({ note }) => placeOfNote(stringing, stringIndex, note))
  return {
    ok: true,
    shift: {
      from: playing(before, fromFinger),
      to: playing(after, toFinger),
      guide,
      guideFromMm: guideFromMm!,
      guideToMm: guideToMm!,
      distanceMm: guideToMm! - guideFromMm!,
      isGuideInKey: { before: there.isInScale, after: here.isInScale },
      opens: after.extension,
      staying: stayingNotes(context, key, from, to),
    },
  }
}

/** The hand of the key with every finger of its frame: those it has no note for rest, at their places in the frame. */
function wholeHand(context: PlacementContext, key: Key, stringIndex: number, position: Position): Placement {
  const cell = placementAt(context, key, stringIndex, position)
  const { family, frameIndex, openMidis } = context
  const isHand = cell.kind === 'placement'
  const frame = (isHand && family.frames.find(({ id }) => id === cell.frameId)) || family.frames[frameIndex]!
  const base = isHand ? cell.base : ownPlace(position)
  const open = openMidis[stringIndex]!
  const stops = ([1, 2, 3, 4] as const).flatMap((finger): FingerStop[] => {
    const own = isHand ? cell.stops.find((s) => s.finger === finger) : undefined
    if (own) return [own]
    const offset = frame.offsets[finger]
    if (offset === undefined) return []
    const semitones = base + offset
    const note = spelledIn(key, open + semitones)
    return [{ finger, note, semitones, form: 'usual', isInScale: false, openString: undefined }]
  })
  if (isHand) return { ...cell, stops }
  return {
    kind: 'placement',
    stringIndex,
    position,
    frameId: frame.id,
    extension: 'none',
    base,
    stops,
    pattern: undefined,
  }
}

/** Fingers beside the key are shown only where they play or guide. */
function playing(hand: Placement, finger: Finger | 0): Placement {
  return { ...hand, stops: hand.stops.filter((stop) => stop.isInScale || stop.finger === finger) }
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
