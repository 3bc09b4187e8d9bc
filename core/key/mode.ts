import { INTERVALS, type Interval } from '../pitch'

export type ModeId =
  | 'major'
  | 'natural_minor'
  | 'harmonic_minor'
  | 'melodic_minor'
  | 'dorian'
  | 'phrygian'
  | 'lydian'
  | 'mixolydian'
  | 'locrian'
  | 'major_pentatonic'
  | 'minor_pentatonic'
  | 'chromatic'

/** A scale without its tonic. */
export interface Mode {
  readonly id: ModeId
  /** Above the tonic, going up, the tonic itself first and without the octave. */
  readonly degrees: readonly Interval[]
  /** The mode it comes down in, where that is another one. */
  readonly fallsAs?: ModeId
  /** The scale it is part of: the hand is shaped for that one, and fingers rest where it has notes that are left out. */
  readonly parent?: ModeId
  /** Fifths from the tonic to the tonic of the major key with the same signature; undefined for keys without one. */
  readonly signature?: number
}

const UNISON: Interval = { steps: 0, semitones: 0 }
const I = INTERVALS

function mode(id: ModeId, degrees: readonly Interval[], extra: Omit<Mode, 'id' | 'degrees'> = {}): Mode {
  return { id, degrees: [UNISON, ...degrees], ...extra }
}

/**
 * The scales a teacher asks for. Degrees as in any primer of harmony: the modes are the white keys from C, D, E …, the
 * harmonic minor raises the seventh, the melodic minor raises sixth and seventh going up and falls as the natural minor.
 */
export const MODES: Readonly<Record<ModeId, Mode>> = {
  major: mode(
    'major',
    [I.majorSecond, I.majorThird, I.perfectFourth, I.perfectFifth, I.majorSixth, I.majorSeventh],
    { signature: 0 },
  ),
  natural_minor: mode(
    'natural_minor',
    [I.majorSecond, I.minorThird, I.perfectFourth, I.perfectFifth, I.minorSixth, I.minorSeventh],
    { signature: -3 },
  ),
  harmonic_minor: mode(
    'harmonic_minor',
    [I.majorSecond, I.minorThird, I.perfectFourth, I.perfectFifth, I.minorSixth, I.majorSeventh],
    { signature: -3 },
  ),
  melodic_minor: mode(
    'melodic_minor',
    [I.majorSecond, I.minorThird, I.perfectFourth, I.perfectFifth, I.majorSixth, I.majorSeventh],
    { signature: -3, fallsAs: 'natural_minor' },
  ),
  dorian: mode(
    'dorian',
    [I.majorSecond, I.minorThird, I.perfectFourth, I.perfectFifth, I.majorSixth, I.minorSeventh],
    { signature: -2 },
  ),
  phrygian: mode(
    'phrygian',
    [I.minorSecond, I.minorThird, I.perfectFourth, I.perfectFifth, I.minorSixth, I.minorSeventh],
    { signature: -4 },
  ),
  lydian: mode(
    'lydian',
    [I.majorSecond, I.majorThird, I.augmentedFourth, I.perfectFifth, I.majorSixth, I.majorSeventh],
    { signature: 1 },
  ),
  mixolydian: mode(
    'mixolydian',
    [I.majorSecond, I.majorThird, I.perfectFourth, I.perfectFifth, I.majorSixth, I.minorSeventh],
    { signature: -1 },
  ),
  locrian: mode(
    'locrian',
    [I.minorSecond, I.minorThird, I.perfectFourth, I.diminishedFifth, I.minorSixth, I.minorSeventh],
    { signature: -5 },
  ),
  major_pentatonic: mode('major_pentatonic', [I.majorSecond, I.majorThird, I.perfectFifth, I.majorSixth], {
    parent: 'major',
    signature: 0,
  }),
  minor_pentatonic: mode(
    'minor_pentatonic',
    [I.minorThird, I.perfectFourth, I.perfectFifth, I.minorSeventh],
    { parent: 'natural_minor', signature: -3 },
  ),
  chromatic: mode('chromatic', [
    I.minorSecond,
    I.majorSecond,
    I.minorThird,
    I.majorThird,
    I.perfectFourth,
    I.diminishedFifth,
    I.perfectFifth,
    I.minorSixth,
    I.majorSixth,
    I.minorSeventh,
    I.majorSeventh,
  ]),
}

export const MODE_IDS = Object.keys(MODES) as ModeId[]
