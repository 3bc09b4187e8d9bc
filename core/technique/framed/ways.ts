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
  { lastSemitone, tuning }: PlacementContext,
  holds: readonly Hold[],
  standing: (hold: Hold, base: number) => Standing,
  stringIndex: number,
  semitones: number,
): readonly FingerOption[] {
  if (semitones > lastSemitone) return []
  const own = made.get(holds) ?? new Map<number, readonly FingerOption[]>()
  made.set(holds, own)
  const id = stringIndex * STRINGS_APART + semitones
  const known = own.get(id)
  if (known) return known
  // Below the highest string a hand climbs to the octave and no further: the next one has those notes.
  const highest = stringIndex < tuning.length - 1 ? OCTAVE : Infinity
  const ways = holds.flatMap((hold) =>
    hold.offsets.flatMap(([finger, offset]): FingerOption[] => {
      const base = semitones - offset
      if (base < hold.from || base > Math.min(hold.to, highest)) return []
      return [{ stringIndex, finger, semitones, hand: handAt(hold, base), ...harmonicAt(semitones, finger) }]
    }),
  )
  own.set(id, ways)
  return ways

  /** One hand is one object, on whichever string it plays. */
  function handAt(hold: Hold, base: number): HandPlace {
    const places = hands.get(hold) ?? new Map<number, HandPlace>()
    hands.set(hold, places)
    const hand = places.get(base) ?? {
      ...standing(hold, base),
      anchor: base,
      holdId: hold.id,
      thumb: hold.thumbs.map((t) => base + t),
      isThumbSet: hold.offsets[0]![0] === THUMB,
    }
    places.set(base, hand)
    return hand
  }
}

const hands = new WeakMap<Hold, Map<number, HandPlace>>()

/** The ways of a few hundred places are asked for thousands of times: each is made once. */
const made = new WeakMap<readonly Hold[], Map<number, readonly FingerOption[]>>()
const STRINGS_APART = 100

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
  return semitones === OCTAVE && (finger === 3 || finger === 5) ? { harmonic: 2 } : {}
}
