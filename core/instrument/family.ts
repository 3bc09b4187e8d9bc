import type { Interval, Note } from '../pitch'
import type { Pressing } from '../stop/pressing'

export type FamilyId = 'violin' | 'viola' | 'cello' | 'bass'
/** 1 is the index finger, 4 the little finger; 0 is the open string. */
export type Finger = 1 | 2 | 3 | 4
/** The thumb set on the string, numbered after the fingers: on paper it has a sign of its own. */
export const THUMB = 5
/** Whatever plays a note. */
export type Digit = 0 | Finger | typeof THUMB

/** A size as makers name it, with the string length to expect. The length is from memory and never replaces a measured one. */
export interface Size {
  readonly id: string
  /** Nut to bridge, mm. */
  readonly typicalLengthMm: number
  /** Length of the body without the button, mm, where the family's makers go by it. */
  readonly typicalBodyMm?: number
}

/** One shape of the left hand on one string: what each finger stops above the open string. */
export interface HandShape {
  readonly id: string
  /** Where the hand lies: id of one of the family’s positions. */
  readonly positionId: string
  readonly fingers: Partial<Record<Finger, Interval>>
}

export type FingerFormId = 'low' | 'usual' | 'high' | 'half'

/** A finger in one of its places, and how far that is above the open string in the lowest positions. */
export interface FingerForm {
  readonly finger: Finger
  readonly form: FingerFormId
  readonly interval: Interval
}

/** Which tapes a school of teaching lays. */
export interface TapeSchool {
  readonly id: string
  readonly marks: readonly { readonly finger: Finger; readonly shapeId: string }[]
}

/** One tape for each of these fingers of a hand shape. */
export function tapesOf(shapeId: HandShape['id'], ...fingers: readonly Finger[]): TapeSchool['marks'] {
  return fingers.map((finger) => ({ finger, shapeId }))
}

/** The span from first to last finger on one string, as a way of holding the hand. */
export interface Frame {
  readonly id: string
  readonly semitones: number
  /** Semitones of each finger above the first while the frame is at rest. */
  readonly offsets: Readonly<Partial<Record<Finger, number>>>
  /** Opened by 1 dropping back a half step while the others stay. */
  readonly opensBack?: boolean
}

/** A place of the hand along the neck. */
export interface Position {
  readonly id: string
  /** Letters above the open string under the first finger: 1 in first position. Missing where positions go by semitone. */
  readonly letter?: number
  /** Semitones above the open string that the first finger stops there, nearest to the nut first. */
  readonly firstFingerSemitones: readonly number[]
}

/** The fingerboard and strings of the full size, mm; smaller sizes are drawn in proportion. From memory. */
export interface BoardShape {
  readonly stringLengthMm: number
  readonly lengthMm: number
  readonly nutWidthMm: number
  readonly endWidthMm: number
  /** Outer string to outer string. */
  readonly spreadAtNutMm: number
  readonly spreadAtBridgeMm: number
  /** Round neck and board, close to the nut and where the neck ends. */
  readonly girthAtNutMm: number
  readonly girthAtNeckEndMm: number
  readonly neckMm: number
}

/** How an instrument is held, and with it where the left hand works: on the shoulder, between the knees, standing beside the player. */
export const HOLD_IDS = ['shoulder', 'knees', 'standing'] as const
export type HoldId = (typeof HOLD_IDS)[number]

/** What a family's notes sound like where they are made up, for the tests of the ear and the simulated player. */
export interface FamilySound {
  /** Its body: below the one, its lowest air resonance, and above the other it passes on less and less, Hz. From memory. */
  readonly airHz: number
  readonly cornerHz: number
  /** Stiffness of its plucked strings; from memory. */
  readonly stiffness: number
  /** Seconds in which partial 1 of a plucked string falls to 1/e; from memory. */
  readonly ringsS: number
  /** Seconds in which a bow brings partial 1 to its strength; higher partials follow within a few periods more. */
  readonly bowSpeaksS: number
  /**
   * What of a bowed note is not of its pitch, or not even: set so that the pitch in its first fifth of a second, its unrest from moment
   * to moment, the part of the sound without a pitch and the swing of the level scatter about as in recorded ones (docs/bench.md,
   * "Recorded strings"). Of the viola nothing was measured: it stands between violin and cello.
   */
  readonly uneven: {
    /** How far an attack's pitch is off as it begins, cents, and in how many seconds it falls to 1/e. */
    readonly scoop: { readonly meanCents: number; readonly sigmaCents: number; readonly fallsS: number }
    /** How far the bow's friction shakes the pitch, cents. */
    readonly jitterCents: number
    /** The bow's hiss as a part of the note. */
    readonly hiss: number
    /** How far its weight and speed swing the level, dB. */
    readonly swingDb: number
  }
}

/** Everything that makes a family what it is. A new family is one such object and a line in `families/index.ts`. */
export interface Family {
  readonly id: FamilyId
  /** What it is called in the middle of a sentence. */
  readonly name: string
  /** Other names that a teacher writes, in small letters and the singular. */
  readonly otherNames: readonly string[]
  readonly hold: HoldId
  /** Frets give every note its place: nothing is laid or judged here, and it is refused in words. */
  readonly hasFrets: boolean
  /** Lowest string first. */
  readonly tuning: readonly Note[]
  /** Largest first. */
  readonly sizes: readonly Size[]
  readonly fingers: readonly Finger[]
  /** The first is the one a check starts with. */
  readonly shapes: readonly HandShape[]
  readonly defaultShapeId: string
  /** Every place a tape may mark by name, nearest to the nut first. */
  readonly forms: readonly FingerForm[]
  readonly schools: readonly TapeSchool[]
  readonly defaultSchoolId: string
  /** Strings that the first tapes are found on by ring, the best first, counted from the lowest; empty for the loudest ring. */
  readonly layStrings: readonly number[]
  /** The first is the one a hand is shaped in. */
  readonly frames: readonly Frame[]
  /** Nearest to the nut first. */
  readonly positions: readonly Position[]
  readonly board: BoardShape
  /** Heights and strings as one mostly meets them at the full size; smaller sizes in proportion. From memory. */
  readonly typicalPressing: Pressing
  readonly sound: FamilySound
}
