import { framedEfforts, type FramedWeights } from '../framed/efforts'
import { celloPatterns } from './patterns'
import { framedWays, isHeld, type Hold, type Standing } from '../framed/ways'
import { BASS_TENOR_TREBLE } from '../clef'
import { ownPlace } from '../names'
import type { PlacementContext, Technique } from '../types'
import { drillsOfCello } from './drills'
import { threeLetters } from './hand'
import { CELLO_HOLDS } from './holds'

/** Weighed so that the usual fingerings come out (docs/trade.md § 9). Common practice, no source. */
const WEIGHTS: FramedWeights = {
  shift: 2.3,
  perSemitone: 0.2,
  perSemitoneUp: 0.12,
  home: 2,
  belowHome: 0.32,
  landmark: 7,
  atLandmark: 0.1,
  passed: 0.8,
  toFirst: -0.5,
  sameFinger: 0,
  slideWhereFree: 0.6,
  harmonic: -0.2,
  byFourth: 0.8,
  toOther: 0.8,
  overreach: 0.8,
  onHalfStep: -0.3,
  full: { finger: 4, early: 0.4 },
  intoOpen: 0.6,
  onOpen: -0.8,
  acrossStrings: 0.5,
  hop: 0.3,
  fourth: 0,
  slide: 8,
  opening: { onString: 2.2, across: 0.5, onOpen: 0.3 },
  setThumb: 0.5,
  shiftToTop: { 1: 0.8 },
  otherAtTurn: 0.4,
}

/** Half step after half step: 1 2 3, then a shift to 1. Common practice, no source. */
const CHROMATIC_WEIGHTS: FramedWeights = {
  ...WEIGHTS,
  sameFinger: 0.8,
  fourth: 3,
  full: { finger: 3, early: 1.5 },
  perSemitone: 0.1,
}

/** Cello: three letters under the fingers of a frame with a semitone each, closed or extended. */
export const cello: Technique = {
  touches: false,
  namesPlaces: true,
  choosesFrame: false,
  choosesOpenString: false,
  writtenOctavesUp: 0,
  // Fifths and a minor third: no octave lies under the hand before the thumb is on the string.
  octave: undefined,
  clefs: BASS_TENOR_TREBLE,
  drills: drillsOfCello,
  patterns: celloPatterns,
  handFor: threeLetters,
  ways: (context, _, stringIndex, semitones) =>
    framedWays(context, CELLO_HOLDS, standingIn(context), stringIndex, semitones),
  holds: (_, stops) => isHeld(CELLO_HOLDS, stops),
  efforts: (context, options) =>
    framedEfforts(context, CELLO_HOLDS, options.chromatic ? CHROMATIC_WEIGHTS : WEIGHTS, options),
}

/** By its position's own place an extended hand has opened forward; between two places 1 has dropped back from the next. */
function standingIn({ family }: PlacementContext) {
  return ({ id, offsets }: Hold, base: number): Standing => {
    if (offsets[0]![0] !== 1) return { position: undefined, extension: 'none' }
    if (id !== 'extended')
      return {
        position: family.positions.find((p) => p.firstFingerSemitones.includes(base)),
        extension: 'none',
      }
    // Half position is for closed hands.
    const own = family.positions.slice(1).find((p) => ownPlace(p) >= base)
    return { position: own, extension: own && ownPlace(own) === base ? 'forward' : 'back' }
  }
}
