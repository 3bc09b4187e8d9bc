import type { Finger } from '../instrument'
import { noteInKey, type Key } from '../key'
import { LETTERS, midiNumber, type Note } from '../pitch'
import type { Drill, DrillFault, DrillNeighbours, DrillNote, FingerStop, Placement } from './types'

/** These fingers in turn; of a finger with two places the lower. */
export function withFingers(
  hand: Placement,
  fingers: readonly (Finger | 0)[],
  open: Note,
): DrillNote[] | DrillFault {
  const notes = fingers.map((finger) => {
    if (finger === 0) return { note: open, stringIndex: hand.stringIndex, finger, semitones: 0 } as const
    const stop = hand.stops.find((s) => s.finger === finger)
    return stop && stopped(hand, stop)
  })
  return notes.every((n) => n !== undefined) ? notes : 'fingers_missing'
}

/** Every finger of a frame on its semitone from `base` on, whether the key has that note or not: naming each note aloud. */
export function chromaticFingers(
  hand: Placement,
  base: number,
  fingers: readonly (Finger | 0)[],
  { open, key, offsets }: DrillNeighbours,
): DrillNote[] | DrillFault {
  const stops = ([1, 2, 3, 4] as const).flatMap((finger): FingerStop[] => {
    const offset = offsets[finger]
    if (offset === undefined) return []
    const semitones = base + offset
    const n = spelledIn(key, midiNumber(open) + semitones)
    return [{ finger, note: n, semitones, form: 'usual', isInScale: true, openString: undefined }]
  })
  return withFingers({ ...hand, base, extension: 'none', stops }, fingers, open)
}

export function stopped(
  { stringIndex, position, base, frameId, extension }: Placement,
  { note, finger, semitones }: FingerStop,
): DrillNote {
  const hand = { position, anchor: base, holdId: frameId, extension }
  return { note, stringIndex, finger, semitones, hand }
}

/** A note by its MIDI number as the key has it; beside the key without a sign where it can be, else with a sign of the signature's kind. */
export function spelledIn(key: Key, midi: number): Note {
  const own = noteInKey(key, midi)
  if (own) return own
  const sign = (key.signature ?? 0) < 0 ? -1 : 1
  for (const accidental of [0, sign])
    for (const letter of LETTERS) {
      const octave = Math.floor((midi - accidental) / 12) - 1
      const spelled: Note = { letter, accidental, octave }
      if (midiNumber(spelled) === midi) return spelled
    }
  throw new RangeError(`no note has the MIDI number ${midi}`)
}

/** Exercises of common practice, no source; docs/trade.md § 8. They work for any string, position and pattern. */
export const OPEN_AND_FIRST: Drill = {
  id: 'open_and_first',
  across: 'up',
  times: 20,
  notes: (hand, { open }) => withFingers(hand, [0, 1], open),
}

export const ONE_TWO_ONE: Drill = {
  id: 'one_two_one',
  times: 8,
  notes: (hand, { open }) => withFingers(hand, [1, 2, 1, 2], open),
}

export const PATTERN: Drill = {
  id: 'pattern',
  times: 4,
  notes(hand, { open }) {
    const fingers = hand.stops.map((s) => s.finger)
    if (fingers.length < 2) return 'one_note'
    return withFingers(hand, [...fingers, ...fingers.slice(1, -1).reverse()], open)
  },
}

/** An octave of two fingers of one hand, `strings` apart. */
export function octaveDrill(strings: number): Drill {
  return {
    id: 'octave_one_four',
    times: 4,
    isWide: true,
    notes(hand, { handAbove }) {
      const above = handAbove(strings)
      const first = hand.stops.find((s) => s.finger === 1)
      const fourth = above?.stops.find((s) => s.finger === 4)
      if (!first || !fourth || !above) return 'no_octave'
      if (midiNumber(fourth.note) - midiNumber(first.note) !== 12) return 'no_octave'
      return [stopped(hand, first), stopped(above, fourth)]
    },
  }
}
