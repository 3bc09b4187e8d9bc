import type { Family, Position, Stringing } from '../instrument'
import { spelledInterval } from '../pitch'
import { frameOnString } from './width'

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

/** Widths of the frames on one string of an instrument, a row a semitone from half position to the octave. */
export function frameAlongNeck(stringing: Stringing, stringIndex: number): NeckPlace[] {
  const { family } = stringing
  return Array.from({ length: OCTAVE_SEMITONES }, (_, index) => {
    const semitones = index + 1
    const first = spelledInterval(semitones)
    return {
      semitones,
      position: positionAtSemitone(family, semitones),
      widthsMm: Object.fromEntries(
        family.frames.map((frame) => [frame.id, frameOnString(stringing, stringIndex, first, frame)]),
      ),
    }
  })
}

/** The first of these places, from the nut on, where a frame is at most `spanMm` wide; undefined where it is so nowhere. */
export function narrowFrom(
  places: readonly NeckPlace[],
  frameId: string,
  spanMm: number,
): NeckPlace | undefined {
  return places.find(({ widthsMm }) => (widthsMm[frameId] ?? Infinity) <= spanMm)
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
