import { THUMB, type Digit, type Finger, type Position } from '../../instrument'
import type { Extension, FingerOption, HandPlace, PlacementContext } from '../types'

/** A way to hold the hand: which semitone above its place each finger has, and where along the string it is held so. */
export interface Hold {
  readonly id: string
  /** A finger with several places takes the one that the key asks for, like a violinist's. */
  readonly offsets: readonly (readonly [Digit, number])[]
  /** Semitones above the open string that its place may be at. */
  readonly from: number
  readonly to: number
  /** Where its thumb can be, in semitones above its place: holds with a thumb place in common are changed without a shift. */
  readonly thumbs: readonly number[]
  /** What it costs to hold it there. */
  effort(base: number): number
}

/** The offsets of a frame, as a hold has them. */
export function offsetsOf(
  offsets: Readonly<Partial<Record<Finger, number>>>,
): readonly (readonly [Digit, number])[] {
  return ([1, 2, 3, 4] as const).flatMap((finger) => {
    const offset = offsets[finger]
    return offset === undefined ? [] : [[finger, offset] as const]
  })
}

export interface Standing {
  readonly position: Position | undefined
  readonly extension: Extension
}

/** Every hold and finger that stops `semitones`; `standing` names where a hand stands. */
export function framedWays(
  context: PlacementContext,
  holds: readonly Hold[],
  standing: (hold: Hold, base: number) => Standing,
  stringIndex: number,
  semitones: number,
): readonly FingerOption[] {
  const { lastSemitone, tuning } = context
  if (semitones > lastSemitone) return []
  const { ways, hands } = madeOf(context, holds)
  const id = stringIndex * STRINGS_APART + semitones
  const known = ways.get(id)
  if (known) return known
  // Below the highest string a hand climbs to the octave and no further: the next one has those notes.
  const highest = stringIndex < tuning.length - 1 ? OCTAVE : Infinity
  const found = holds.flatMap((hold) =>
    hold.offsets.flatMap(([finger, offset]): FingerOption[] => {
      const base = semitones - offset
      if (base < hold.from || base > Math.min(hold.to, highest)) return []
      return [{ stringIndex, finger, semitones, hand: handAt(hold, base), ...harmonicAt(semitones, finger) }]
    }),
  )
  ways.set(id, found)
  return found

  function handAt(hold: Hold, base: number): HandPlace {
    const place = `${hold.id} ${base}`
    const hand = hands.get(place) ?? {
      ...standing(hold, base),
      anchor: base,
      holdId: hold.id,
      thumb: hold.thumbs.map((t) => base + t),
      isThumbSet: hold.offsets[0]![0] === THUMB,
    }
    hands.set(place, hand)
    return hand
  }
}

/** What was made for the strings of one instrument. */
interface Made {
  /** By string and semitones. */
  readonly ways: Map<number, readonly FingerOption[]>
  /** One hand is one object, on whichever string it plays. */
  readonly hands: Map<string, HandPlace>
}

/** The ways of a few hundred places are asked for thousands of times: each is made once. */
const made = new WeakMap<PlacementContext, Map<readonly Hold[], Made>>()
const STRINGS_APART = 100

function madeOf(context: PlacementContext, holds: readonly Hold[]): Made {
  const own = made.get(context) ?? new Map<readonly Hold[], Made>()
  made.set(context, own)
  const known = own.get(holds) ?? { ways: new Map(), hands: new Map() }
  own.set(holds, known)
  return known
}

/** Whether one of the holds has all these fingers at these places. */
export function isHeld(
  holds: readonly Hold[],
  stops: readonly { readonly finger: Digit; readonly semitones: number }[],
): boolean {
  const [first] = stops
  if (!first) return true
  return holds.some((hold) =>
    hold.offsets
      .filter(([finger]) => finger === first.finger)
      .some(([, offset]) => {
        const base = first.semitones - offset
        if (base < hold.from || base > hold.to) return false
        return stops.every(({ finger, semitones }) =>
          hold.offsets.some(([f, o]) => f === finger && base + o === semitones),
        )
      }),
  )
}

const OCTAVE = 12

/** On the octave a third finger or the thumb touches the string where it rings by itself. */
function harmonicAt(semitones: number, finger: Digit): Pick<FingerOption, 'harmonic'> {
  return semitones === OCTAVE && (finger === 3 || finger === THUMB) ? { harmonic: 2 } : {}
}
