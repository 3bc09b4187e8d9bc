import { framedEfforts, type FramedWeights } from '../framed/efforts'
import { framedWays, type Hold, type Standing } from '../framed/ways'
import type { Efforts, FingeringOptions, FingerOption, PlacementContext } from '../types'

/** One finger a semitone, as chromatic scales are played today on the violin as well. */
const HOLD: Hold = {
  id: 'chromatic',
  offsets: [
    [1, 0],
    [2, 1],
    [3, 2],
    [4, 3],
  ],
  from: 1,
  to: 30,
  thumbs: [0],
  effort: () => 0,
}

const HOLDS = [HOLD]

const WEIGHTS: FramedWeights = {
  shift: 2,
  perSemitone: 0.15,
  perSemitoneUp: 0.12,
  home: 1,
  belowHome: 0,
  landmark: 12,
  atLandmark: 1.3,
  passed: 3,
  toFirst: -0.6,
  sameFinger: 1,
  slideWhereFree: 0,
  harmonic: 0,
  byFourth: 1,
  toOther: 1,
  overreach: 0.8,
  onHalfStep: 0,
  intoOpen: 0,
  onOpen: -0.5,
  acrossStrings: 0.7,
  hop: 0.4,
  fourth: 0,
  slide: 2.5,
  opening: { onString: 0, across: 0, onOpen: 0 },
  setThumb: 0,
  shiftToTop: {},
  otherAtTurn: 0,
}

export function semitoneWays(
  context: PlacementContext,
  stringIndex: number,
  semitones: number,
): readonly FingerOption[] {
  const { positions } = context.family
  const standing = (_: Hold, base: number): Standing => ({
    position: positions.find((p) => p.firstFingerSemitones.includes(base)),
    extension: 'none',
  })
  return framedWays(context, HOLDS, standing, stringIndex, semitones)
}

export function semitoneEfforts(context: PlacementContext, options: FingeringOptions): Efforts {
  return framedEfforts(context, HOLDS, WEIGHTS, options)
}
