import { drillsOfUpper } from './drills'
import { letterEfforts } from './efforts'
import { fingerALetter } from './hand'
import { letterPatterns } from './patterns'
import { isLetterHand, letterWays } from './ways'
import { semitoneEfforts, semitoneWays } from './semitones'
import { TREBLE, ALTO_AND_TREBLE } from '../clef'
import type { Technique } from '../types'

/** Violin and viola: a finger to each letter, moved low or high as the key asks. */
const upper = {
  touches: true,
  namesPlaces: false,
  choosesFrame: false,
  choosesOpenString: true,
  writtenOctavesUp: 0,
  octave: { lower: 1, upper: 4, strings: 1 },
  drills: drillsOfUpper,
  patterns: letterPatterns,
  handFor: fingerALetter,
  ways: (context, n, stringIndex, semitones, options) =>
    options.chromatic === 'semitones'
      ? semitoneWays(context, stringIndex, semitones)
      : letterWays(context, n, stringIndex, semitones, options),
  holds: isLetterHand,
  efforts: (context, options) =>
    options.chromatic === 'semitones' ? semitoneEfforts(context, options) : letterEfforts(context, options),
} satisfies Omit<Technique, 'clefs'>

export const violin: Technique = { ...upper, clefs: TREBLE }
export const viola: Technique = { ...upper, clefs: ALTO_AND_TREBLE }
