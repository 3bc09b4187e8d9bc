import type { Family, Finger, FingerFormId, Position } from '../instrument'
import type { Note } from '../pitch'
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
