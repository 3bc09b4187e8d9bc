import type { Family, Position } from '../instrument'
import { frameWidthMm } from './width'

/** Width of every frame where the first finger stands on one semitone. */
export interface NeckPlace {
  /** Above the open string, under the first finger. */
  readonly semitones: number
  readonly position: Position | undefined
  /** mm from the first to the last finger, by frame id. */
  readonly widthsMm: Readonly<Record<string, number>>
}

/** Semitones of the octave: the table of a neck goes from half position to it. */
export const OCTAVE_SEMITONES = 12

/** Widths of a family's frames on a string of `lengthMm`, a row a semitone from half position to the octave. */
export function frameAlongNeck(family: Family, lengthMm: number): NeckPlace[] {
  return Array.from({ length: OCTAVE_SEMITONES }, (_, index) => {
    const semitones = index + 1
    return {
      semitones,
      position: positionAtSemitone(family, semitones),
      widthsMm: Object.fromEntries(
        family.frames.map((frame) => [frame.id, frameWidthMm(lengthMm, semitones, frame.semitones)]),
      ),
    }
  })
}

/** The position whose first finger lies there; of several the one further down the neck. */
export function positionAtSemitone(family: Family, semitones: number): Position | undefined {
  return family.positions.find(
    (p) =>
      p.firstFingerSemitones.includes(semitones) &&
      // On the first semitone the hand is in half position only where no letter says otherwise.
      (p.letter === undefined || p.letter > 0 || semitones === 1),
  )
}

/**
 * Semitones above the open string from which a frame of `spanSemitones` is at most `spanMm` wide: the width
 * L · 2^(−s/12) (1 − 2^(−k/12)) solved for s. Zero or less where it is so at the nut already.
 */
export function narrowFrom(lengthMm: number, spanSemitones: number, spanMm: number): number {
  return 12 * Math.log2((lengthMm * (1 - 2 ** (-spanSemitones / 12))) / spanMm)
}
