import type { Digit, Finger, Frame, Position } from '../../instrument'
import { diatonicNumber, midiNumber, type Note } from '../../pitch'
import { FINGERS } from '../stops'
import type { FingerOption, FingeringOptions, PlacementContext } from '../types'

const HOLD_ID = 'fourth'
/** Letters above the open string under a first finger on the octave. */
const OCTAVE_POSITION = 7

/** Every position in which finger f has this letter, low or high as the key puts it. */
export function letterWays(
  { family, openLetters, lastSemitone, tuning }: PlacementContext,
  n: Note,
  stringIndex: number,
  semitones: number,
  { chromatic, climb }: FingeringOptions,
): FingerOption[] {
  if (semitones > lastSemitone) return []
  const frame = family.frames[0]!
  // Half step after half step a finger takes its neighbour's letter as well: D♯ under a low 4.
  const letters = (chromatic ? [n, ...respelled(n)] : [n]).map(
    (spelled) => diatonicNumber(spelled) - openLetters[stringIndex]!,
  )
  const reaching = climb === 'stay' ? [4 as const] : []
  // Below the highest string a hand climbs to the octave and no further: the next one has those notes.
  const highest = stringIndex < tuning.length - 1 ? OCTAVE_POSITION : Infinity
  return letters.flatMap((letter) => [
    ...FINGERS.flatMap((finger) => way(letter - finger + 1, finger)),
    // The fourth finger stretched to the next letter.
    ...reaching.flatMap((finger) => way(letter - finger, finger)),
  ])

  function way(anchor: number, finger: Finger): FingerOption[] {
    if (anchor > highest) return []
    const position = family.positions.find((p) => p.letter === anchor)
    if (!position || !isReachable(frame, position, finger, semitones)) return []
    return [
      { stringIndex, finger, semitones, hand: { position, anchor, holdId: HOLD_ID, extension: 'none' } },
    ]
  }
}

/** From 1 to 4 an augmented fourth at most; neighbouring fingers a half step apart at least, an augmented second at most. */
const WIDEST = 6
const WIDEST_STEP = 3

/** Whether fingers lie in order within the widest frame of the violin and viola. */
export function isLetterHand(
  _: PlacementContext,
  stops: readonly { readonly finger: Digit; readonly semitones: number }[],
): boolean {
  return stops.every((a, i) =>
    stops.slice(i + 1).every((b) => {
      const [low, high] = a.finger <= b.finger ? [a, b] : [b, a]
      const fingers = high.finger - low.finger
      const apart = high.semitones - low.semitones
      // Whoever stops two strings with one finger stops a fifth.
      if (fingers === 0) return false
      return apart >= fingers && apart <= Math.min(WIDEST, WIDEST_STEP + 2 * (fingers - 1))
    }),
  )
}

/** Whether a finger of this position gets there with low and high places, and no wider stretch. */
function isReachable({ offsets }: Frame, position: Position, finger: Finger, semitones: number): boolean {
  const places = position.firstFingerSemitones
  const rest = offsets[finger] ?? 0
  return semitones >= places[0]! + rest - 2 && semitones <= places.at(-1)! + rest + 1 && semitones >= 1
}

/** The same key by the letter above or below: `E♭` for `D♯`. */
function respelled(n: Note): Note[] {
  if (n.accidental === 0) return []
  const up = n.accidental > 0
  const letters = 'CDEFGAB'
  const at = letters.indexOf(n.letter) + (up ? 1 : -1)
  const letter = letters[(at + 7) % 7]! as Note['letter']
  const octave = n.octave + (at > 6 ? 1 : at < 0 ? -1 : 0)
  const plain: Note = { letter, accidental: 0, octave }
  return [{ ...plain, accidental: midiNumber(n) - midiNumber(plain) }]
}
