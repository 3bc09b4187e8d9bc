import { framedEfforts, type FramedWeights } from '../framed/efforts'
import { framePatterns } from '../framed/patterns'
import { framedWays, isHeld, type Hold, type Standing } from '../framed/ways'
import { BASS_TENOR_TREBLE } from '../clef'
import { THUMB } from '../../instrument'
import type { PlacementContext, Technique } from '../types'
import { drillsOfBass } from './drills'
import { fingerASemitone } from './hand'
import { bassHolds } from './holds'

/** Weighed so that the usual fingerings come out (docs/trade.md § 9). Common practice, no source. */
const WEIGHTS: FramedWeights = {
  shift: 1.8,
  perSemitone: 0.25,
  perSemitoneUp: 0.12,
  home: 2,
  belowHome: 0.1,
  landmark: 12,
  atLandmark: 1,
  passed: 0.8,
  toFirst: -0.4,
  sameFinger: 0.2,
  slideWhereFree: 1.5,
  harmonic: -0.4,
  byFourth: 0.6,
  toOther: 0,
  overreach: 0.6,
  onHalfStep: -0.2,
  intoOpen: 0,
  onOpen: -0.8,
  acrossStrings: 0.3,
  hop: 0.2,
  fourth: 0,
  slide: 8,
  opening: { onString: 2.2, across: 0.5, onOpen: 0.3 },
  setThumb: 0.5,
  shiftToTop: { 1: 1.6, 2: 0.9 },
  otherAtTurn: 0,
}

/** Half step after half step: 1 2 4, then a shift to 1. Common practice, no source. */
const CHROMATIC_WEIGHTS: FramedWeights = {
  ...WEIGHTS,
  sameFinger: 0.8,
  toFirst: -0.8,
  full: { finger: 4, early: 1.5 },
  perSemitone: 0.1,
}

/** Bass: the frame stands on a semitone, whatever the key, and the whole hand moves as one. */
export const bass: Technique = {
  touches: false,
  namesPlaces: false,
  choosesFrame: true,
  choosesOpenString: false,
  // Reads an octave above where it sounds.
  writtenOctavesUp: 1,
  // Fourths: a whole tone more than two of them.
  octave: { lower: 1, upper: 4, strings: 2 },
  clefs: BASS_TENOR_TREBLE,
  drills: drillsOfBass,
  patterns: framePatterns,
  handFor: fingerASemitone,
  ways: (context, _, stringIndex, semitones) =>
    framedWays(context, bassHolds(context), standingIn(context), stringIndex, semitones),
  holds: (context, stops) => isHeld(bassHolds(context), stops),
  efforts: (context, options) =>
    framedEfforts(context, bassHolds(context), options.chromatic ? CHROMATIC_WEIGHTS : WEIGHTS, options),
}

function standingIn({ family }: PlacementContext) {
  return ({ offsets }: Hold, base: number): Standing => ({
    position:
      offsets[0]![0] === THUMB
        ? undefined
        : family.positions.find((p) => p.firstFingerSemitones.includes(base)),
    extension: 'none',
  })
}
