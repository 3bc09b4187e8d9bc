import type { Digit, FamilyId } from '../instrument'
import { noteName } from '../pitch'
import type { HarmonicPart, PlacementContext } from '../technique'
import type { FingeredNote, Lock } from './finger'
import type { FigureId, ScaleRequest } from './scale'

/** A scale or arpeggio on certain strings, by its names. */
export interface ScaleLine {
  readonly family: FamilyId
  /** Open strings, lowest first, as `D4`. */
  readonly tuning: readonly string[]
  readonly frameId: string
  readonly keyId: string
  readonly figure: FigureId
  readonly octaves: 1 | 2 | 3
}

/** Where one note of a kept fingering is played. */
export interface KeptPlace {
  readonly stringIndex: number
  readonly finger: Digit
  readonly harmonic?: HarmonicPart | undefined
  /** Where a teacher settled that the hand shifts to it, or does not. */
  readonly isShift?: boolean | undefined
}

/** The line of a request on these strings. */
export function lineOf(context: PlacementContext, { key, figure, octaves }: ScaleRequest): ScaleLine {
  const { family, tuning, frameIndex } = context
  return {
    family: family.id,
    tuning: tuning.map((open) => noteName(open)),
    frameId: family.frames[frameIndex]!.id,
    keyId: key.id,
    figure,
    octaves,
  }
}

/** One name for one line: `violin/G3 D4 A4 E5/fourth/D:major/scale/2`. */
export function lineId({ family, tuning, frameId, keyId, figure, octaves }: ScaleLine): string {
  return [family, tuning.join(' '), frameId, keyId, figure, octaves].join('/')
}

/**
 * A fingering as it is kept: string and finger of every note, and the shifts among its locks, so that better fingerings never
 * change a teacher's own.
 */
export function placesOfFingering(notes: readonly FingeredNote[], locks: readonly Lock[] = []): KeptPlace[] {
  const shifts = new Map(locks.map(({ index, isShift }) => [index, isShift]))
  return notes.map(({ stringIndex, finger, harmonic }, index) => {
    const isShift = shifts.get(index)
    return {
      stringIndex,
      finger,
      ...(harmonic !== undefined && harmonic > 2 ? { harmonic } : {}),
      ...(isShift === undefined ? {} : { isShift }),
    }
  })
}

/** The same note by note, as settled. */
export function locksOf(places: readonly KeptPlace[]): Lock[] {
  return places.map((place, index) => ({ index, ...place }))
}
