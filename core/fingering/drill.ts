import type { FamilyId, Finger, Position } from '../instrument'
import { LETTERS, midiNumber, type Note } from '../pitch'
import {
  noteInKey,
  placementAt,
  type FingerStop,
  type Key,
  type Placement,
  type PlacementContext,
} from '../pattern'
import type { FingeredNote } from './finger'

export type DrillId =
  | 'open_and_first'
  | 'one_two_one'
  | 'one_two_three_two'
  | 'pattern'
  | 'bass_roll'
  | 'up_from_open'
  | 'fourth_against_open'
  | 'extended_first'
  | 'octave_one_four'

/** A figure of notes for one hand, and how it is practised. */
export interface Drill {
  readonly id: DrillId
  /** Families it is for; all of them without it. */
  readonly families?: readonly FamilyId[]
  /** Played one string after the other, from the lowest up or the highest down; without it on the chosen string alone. */
  readonly across?: 'up' | 'down'
  /** Times the figure is played on each string. */
  readonly times: number
  /** Asks the hand to be wide for long: only if comfortable. */
  readonly isWide?: boolean
  /** The notes of one time, or undefined where this hand has not the fingers for it. */
  notes(hand: Placement, neighbours: DrillNeighbours): DrillNote[] | undefined
}

interface DrillNeighbours {
  /** Spells what the hand plays beside its scale. */
  readonly key: Key
  readonly open: Note
  /** The string above, if there is one. */
  readonly openAbove: Note | undefined
  /** The same position on the string above. */
  readonly handAbove: Placement | undefined
}

export type DrillNote = Pick<FingeredNote, 'note' | 'stringIndex' | 'finger' | 'semitones'>

/** Exercises of common practice, no source; they work for any string, position and pattern. */
export const DRILLS: readonly Drill[] = [
  {
    id: 'open_and_first',
    across: 'up',
    times: 20,
    notes: (hand, { open }) => withFingers(hand, [0, 1], open),
  },
  { id: 'one_two_one', times: 8, notes: (hand, { open }) => withFingers(hand, [1, 2, 1, 2], open) },
  {
    id: 'one_two_three_two',
    times: 8,
    families: ['violin', 'viola', 'cello'],
    notes: (hand, { open }) => withFingers(hand, [1, 2, 3, 2], open),
  },
  {
    id: 'pattern',
    times: 4,
    notes: (hand, { open }) => {
      const fingers = hand.stops.map((s) => s.finger)
      // One note again and again is no drill.
      if (fingers.length < 2) return undefined
      return withFingers(hand, [...fingers, ...fingers.slice(1, -1).reverse()], open)
    },
  },
  {
    id: 'bass_roll',
    families: ['bass'],
    across: 'down',
    times: 2,
    notes: (hand, { open, key }) => chromaticFingers(hand, [1, 2, 4, 2, 1, 4, 2, 4], open, key),
  },
  {
    id: 'up_from_open',
    families: ['bass'],
    across: 'up',
    times: 1,
    notes: (hand, { open, key }) => chromaticFingers(hand, [0, 1, 2, 4, 2, 1, 0], open, key),
  },
  {
    id: 'fourth_against_open',
    families: ['violin', 'viola'],
    times: 8,
    notes(hand, { openAbove }) {
      const fourth = hand.stops.find((s) => s.finger === 4)
      // It must be the next string itself: any other rings, but is not what the finger is set against.
      if (!fourth || !openAbove || midiNumber(fourth.note) !== midiNumber(openAbove)) return undefined
      const above = hand.stringIndex + 1
      return [stopped(hand, fourth), { note: openAbove, stringIndex: above, finger: 0, semitones: 0 }]
    },
  },
  {
    id: 'extended_first',
    families: ['cello'],
    times: 8,
    notes(hand, { open }) {
      if (hand.extension !== 'back') return undefined
      return withFingers(hand, [1, 2, 1, 4], open)
    },
  },
  {
    id: 'octave_one_four',
    families: ['violin', 'viola'],
    times: 4,
    isWide: true,
    notes(hand, { handAbove }) {
      const first = hand.stops.find((s) => s.finger === 1)
      const fourth = handAbove?.stops.find((s) => s.finger === 4)
      if (!first || !fourth || !handAbove) return undefined
      if (midiNumber(fourth.note) - midiNumber(first.note) !== 12) return undefined
      return [stopped(hand, first), stopped(handAbove, fourth)]
    },
  },
]

export type DrillRun =
  | { readonly ok: true; readonly notes: readonly DrillNote[] }
  | {
      readonly ok: false
      /** The key has no hand there, or its hand has not the fingers this drill is made of. */
      readonly code: 'no_hand' | 'fingers_missing'
      readonly stringIndex: number
    }

export function drillsFor(family: FamilyId): Drill[] {
  return DRILLS.filter((drill) => drill.families === undefined || drill.families.includes(family))
}

/** A drill on a string in a position of a key, its figure `times` times on each string; one that goes across the strings leaves out those it cannot be played on. */
export function drillNotes(
  context: PlacementContext,
  drill: Drill,
  key: Key,
  stringIndex: number,
  position: Position,
  times: number = drill.times,
): DrillRun {
  const all = context.tuning.map((_, index) => index)
  const strings = drill.across === undefined ? [stringIndex] : drill.across === 'up' ? all : all.reverse()
  const runs = strings.map((index) => oneString(context, drill, key, index, position, times))
  const notes = runs.flatMap((run) => (run.ok ? run.notes : []))
  return notes.length > 0 ? { ok: true, notes } : runs[0]!
}

function oneString(
  context: PlacementContext,
  drill: Drill,
  key: Key,
  stringIndex: number,
  position: Position,
  times: number,
): DrillRun {
  const cell = placementAt(context, key, stringIndex, position)
  if (cell.kind === 'none') return { ok: false, code: 'no_hand', stringIndex }
  const openAbove = context.tuning[stringIndex + 1]
  const above = openAbove && placementAt(context, key, stringIndex + 1, position)
  const once = drill.notes(cell, {
    key,
    open: context.tuning[stringIndex]!,
    openAbove,
    handAbove: above?.kind === 'placement' ? above : undefined,
  })
  if (!once) return { ok: false, code: 'fingers_missing', stringIndex }
  return { ok: true, notes: Array.from({ length: times }, () => once).flat() }
}

/** These fingers in turn; of a finger with two places the lower. Undefined where the hand has not all of them. */
function withFingers(hand: Placement, fingers: readonly (Finger | 0)[], open: Note): DrillNote[] | undefined {
  const notes = fingers.map((finger) => {
    if (finger === 0) return { note: open, stringIndex: hand.stringIndex, finger, semitones: 0 } as const
    const stop = hand.stops.find((s) => s.finger === finger)
    return stop && stopped(hand, stop)
  })
  return notes.every((n) => n !== undefined) ? notes : undefined
}

/** Every finger of the frame on its semitone, whether the key has that note or not: naming each note aloud. */
function chromaticFingers(
  hand: Placement,
  fingers: readonly (Finger | 0)[],
  open: Note,
  key: Key,
): DrillNote[] | undefined {
  return withFingers({ ...hand, stops: everyFinger(hand, open, key) }, fingers, open)
}

function everyFinger(hand: Placement, open: Note, key: Key): FingerStop[] {
  return FRAME_124.map(([finger, offset]) => {
    const semitones = hand.base + offset
    const own = hand.stops.find((s) => s.semitones === semitones)
    return (
      own ?? {
        finger,
        note: spelledIn(key, midiNumber(open) + semitones),
        semitones,
        form: 'usual',
        isInScale: true,
        openString: undefined,
      }
    )
  })
}

const FRAME_124 = [
  [1, 0],
  [2, 1],
  [4, 2],
] as const satisfies readonly (readonly [Finger, number])[]

function stopped({ stringIndex }: Placement, { note, finger, semitones }: FingerStop): DrillNote {
  return { note, stringIndex, finger, semitones }
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
