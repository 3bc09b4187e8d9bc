import type { Interval } from './note'

/** The spelled intervals that hands use above an open string. */
export const INTERVALS = {
  minorSecond: { steps: 1, semitones: 1 },
  majorSecond: { steps: 1, semitones: 2 },
  minorThird: { steps: 2, semitones: 3 },
  majorThird: { steps: 2, semitones: 4 },
  perfectFourth: { steps: 3, semitones: 5 },
  augmentedFourth: { steps: 3, semitones: 6 },
  perfectFifth: { steps: 4, semitones: 7 },
  octave: { steps: 7, semitones: 12 },
} as const satisfies Record<string, Interval>
