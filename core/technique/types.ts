import type { Digit, Family, Finger, FingerFormId, Position } from '../instrument'
import type { Key } from '../key'
import type { Note } from '../pitch'
import type { Clefs } from './clef'
import type { Pattern } from './pattern'

/** One finger at its place. */
export interface FingerStop {
  readonly finger: Finger
  readonly note: Note
  /** Above the open string. */
  readonly semitones: number
  readonly form: FingerFormId
  /** False where the scale leaves this note out and the finger rests there. */
  readonly isInScale: boolean
  /** The open string that sounds the same note, if there is one. */
  readonly openString: number | undefined
}

export type Extension = 'none' | 'back' | 'forward'

/** What a key asks of the hand on one string in one position. */
export interface Placement {
  readonly kind: 'placement'
  readonly stringIndex: number
  readonly position: Position
  readonly frameId: string
  /** Cello: whether 1 drops back, or 2, 3, 4 and the thumb move up. */
  readonly extension: Extension
  /** Semitones above the open string of the first finger's place, whether the key uses it or not. */
  readonly base: number
  /** In order from the nut; a chromatic scale can ask two places of one finger. */
  readonly stops: readonly FingerStop[]
  /** Missing where one finger has two places: it slides. */
  readonly pattern: Pattern | undefined
}

/** Why a key asks nothing of the hand there, and the notes it would have wanted. */
export interface NoPlacement {
  readonly kind: 'none'
  readonly stringIndex: number
  readonly position: Position
  readonly reason:
    /** The first finger would lie at the nut or behind it. */
    | 'open_string'
    /** The notes lie further apart than this hand holds without moving. */
    | 'beyond_frame'
    /** The key has no note under these fingers. */
    | 'no_note'
    /** Past the end of the fingerboard. */
    | 'off_board'
  readonly wanted: readonly Note[]
}

export type AtlasCell = Placement | NoPlacement

/** What does not change from cell to cell of one atlas. */
export interface PlacementContext {
  readonly family: Family
  /** Open strings, lowest first. */
  readonly tuning: readonly Note[]
  readonly openMidis: readonly number[]
  readonly openLetters: readonly number[]
  /** Bass: which of the family's frames the hand is held in. */
  readonly frameIndex: number
  /** Semitones to the end of the fingerboard. */
  readonly lastSemitone: number
}

/** The hand as it stands while notes are played. */
export interface HandPlace {
  readonly position: Position | undefined
  /** Of its first finger, or of the thumb set on the string: letters (violin, viola) or semitones above the open string. */
  readonly anchor: number
  /** How it is held: id of one of the technique's holds. Another hold at the same place is another hand. */
  readonly holdId: string
  /** Where its thumb may be, in semitones above the open string, nearest to the nut first; of a hand that goes by semitones. */
  readonly thumb?: readonly number[]
  /** Whether the thumb lies on the string. */
  readonly isThumbSet?: boolean
  readonly extension: Extension
}

/** One way of playing a note. */
export interface FingerOption {
  readonly stringIndex: number
  readonly finger: Digit
  /** Above the open string, as it sounds. */
  readonly semitones: number
  /** Undefined of an open string: the hand stays where it is. */
  readonly hand: HandPlace | undefined
  /** A string touched at one part in so many, not stopped. */
  readonly harmonic?: HarmonicPart
}

/** Half, a third or a quarter of the string. */
export type HarmonicPart = 2 | 3 | 4

export interface FingeringOptions {
  /** Fourth finger or open string, where both sound the note. */
  readonly openStrings: 'prefer' | 'avoid'
  /** To go up by shifting early on 1, or by staying and stretching as long as a hand can. */
  readonly climb: 'early' | 'stay'
  /** Half steps that follow one another: one finger slides, or each finger has its semitone. Undefined in all other lines. */
  readonly chromatic: 'slide' | 'semitones' | undefined
}

/** What it costs a hand to play and to move, never negative, in steps of a whole tone's trouble. */
export interface Efforts {
  own(way: FingerOption): number
  /** From the way before, the hand being where that or a note before it left it; `rise` in semitones from note to note. */
  move(from: FingerOption, hand: HandPlace | undefined, to: FingerOption, rise: number): number
  /** A shift to the top note of a scale, and to the note before it: a top is found in the hand that plays it. */
  readonly shiftAtTop: readonly number[]
  /** Added where such a finger shifts to the top note: nothing follows that it would lead the hand to. */
  readonly shiftToTop: Readonly<Partial<Record<Digit, number>>>
  /** Another finger than over fewer octaves for each of the notes where the shorter line turns. */
  readonly otherAtTurn: number
}

/** An octave under one hand: the lower note's finger, the upper one's, and how many strings lie between them. */
export interface OctaveGrip {
  readonly lower: Digit
  readonly upper: Digit
  readonly strings: number
}

/** Everything a family's left hand does, in one place. */
export interface Technique {
  /** Whether a half step makes two fingertips touch; else it is a finger's spacing. */
  readonly touches: boolean
  /** Whether a position has a lower and an upper place by name, as cellists have it. */
  readonly namesPlaces: boolean
  /** Whether a player chooses the frame once for all (bass: 1-2-4 or four fingers). */
  readonly choosesFrame: boolean
  /** Whether a fourth finger and an open string are two ways to play one note in first position. */
  readonly choosesOpenString: boolean
  /** Of two fingers and more, those of the frame at rest first, in the order they are taught in. */
  patterns(family: Family): readonly Pattern[]
  readonly drills: readonly Drill[]
  readonly clefs: Clefs
  /** Octaves that a note is written above where it sounds. */
  readonly writtenOctavesUp: number
  /** An octave that first positions hold, if they do. */
  readonly octave: OctaveGrip | undefined
  /** The hand that `key` asks for; `parent` is the scale that a pentatonic one leaves notes out of. */
  handFor(
    context: PlacementContext,
    key: Key,
    parent: Key,
    stringIndex: number,
    position: Position,
  ): AtlasCell
  /** Every way to stop a note on one string, `semitones` above it. */
  ways(
    context: PlacementContext,
    n: Note,
    stringIndex: number,
    semitones: number,
    options: FingeringOptions,
  ): readonly FingerOption[]
  efforts(context: PlacementContext, options: FingeringOptions): Efforts
  /** Whether one hand has all these fingers down at once, on whichever strings: `semitones` above their open string. */
  holds(
    context: PlacementContext,
    stops: readonly { readonly finger: Digit; readonly semitones: number }[],
  ): boolean
}

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

/** Why a hand does not play a drill. */
export type DrillFault =
  /** The key has not a note for each of its fingers here. */
  | 'fingers_missing'
  /** One note only: that would be no drill. */
  | 'one_note'
  /** The next string up does not sound the fourth finger’s note. */
  | 'no_such_open_string'
  /** Nothing to lift and drop: 1 lies in its closed place. */
  | 'not_extended'
  /** 1 and 4 are no octave here. */
  | 'no_octave'

/** A figure of notes for one hand, and how it is practised. */
export interface Drill {
  readonly id: DrillId
  /** Played one string after the other and back, from the lowest or from the highest; without it on the chosen string alone. */
  readonly across?: 'up' | 'down'
  /** Times the figure is played on each string. */
  readonly times: number
  /** Asks the hand to be wide for long: only if comfortable. */
  readonly isWide?: boolean
  /** The notes of one time, or why this hand has none. */
  notes(hand: Placement, neighbours: DrillNeighbours): DrillNote[] | DrillFault
}

export interface DrillNeighbours {
  /** Spells what the hand plays beside its scale. */
  readonly key: Key
  readonly open: Note
  /** The string above, if there is one. */
  readonly openAbove: Note | undefined
  /** The frame that the hand is held in: semitones of each finger above the first. */
  readonly offsets: Readonly<Partial<Record<Finger, number>>>
  /** The same position so many strings above. */
  readonly handAbove: (strings: number) => Placement | undefined
}

export interface DrillNote {
  readonly note: Note
  readonly stringIndex: number
  readonly finger: Digit
  readonly semitones: number
  /** As the hand stands; of an open string none. */
  readonly hand?: HandPlace
}
