import { placeOfNote, type Frame, type Stringing } from '../instrument'
import { INTERVALS, midiNumber, transpose, type Interval } from '../pitch'

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
 * The octave with 1 and 4 on every pair of neighbouring strings, 1 an interval `first` above its open string. Strings a
 * fifth apart leave a fourth between the fingers: the violin's frame, a semitone more than the cello's widest.
 */
export function octaveChecks(stringing: Stringing, first: Interval): OctaveCheck[] {
  const { family, tuning } = stringing
  return tuning.slice(1).map((upper, lowerString) => {
    const lower = tuning[lowerString]!
    const under1 = transpose(lower, first)
    const under4 = transpose(under1, INTERVALS.octave)
    const semitones = 12 - (midiNumber(upper) - midiNumber(lower))
    return {
      lowerString,
      semitones,
      frame: family.frames.find((f) => f.semitones === semitones),
      widthMm: placeOfNote(stringing, lowerString + 1, under4) - placeOfNote(stringing, lowerString, under1),
    }
  })
}
