import type { Family, Frame } from '../instrument'
import { midiNumber, type Note } from '../pitch'
import { frameWidthMm } from './width'

/** An octave with 1 on a lower string and 4 on the next one. */
export interface OctaveCheck {
  readonly lowerString: number
  /** Semitones from 1 up to 4 along the neck. */
  readonly semitones: number
  /** The frame it is, or undefined where no frame of the family is so wide or so narrow. */
  readonly frame: Frame | undefined
  /** From 1 to 4 along the neck, mm. */
  readonly widthMm: number
}

/**
 * The octave with 1 and 4 on every pair of neighbouring strings, 1 at `firstSemitones` above its open string. Strings a
 * fifth apart leave a fourth between the fingers: the violin's frame, a semitone more than the cello's widest.
 */
export function octaveChecks(
  family: Family,
  tuning: readonly Note[],
  lengthMm: number,
  firstSemitones: number,
): OctaveCheck[] {
  return tuning.slice(1).map((upper, lowerString) => {
    const semitones = 12 - (midiNumber(upper) - midiNumber(tuning[lowerString]!))
    return {
      lowerString,
      semitones,
      frame: family.frames.find((f) => f.semitones === semitones),
      widthMm: frameWidthMm(lengthMm, firstSemitones, semitones),
    }
  })
}
