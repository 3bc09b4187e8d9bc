import type { Interval } from './note'

/** The spelled intervals that hands use above an open string. */
export const INTERVALS = {
  minorSecond: { steps: 1, semitones: 1 },
  majorSecond: { steps: 1, semitones: 2 },
  minorThird: { steps: 2, semitones: 3 },
  majorThird: { steps: 2, semitones: 4 },
  perfectFourth: { steps: 3, semitones: 5 },
  augmentedFourth: { steps: 3, semitones: 6 },
  diminishedFifth: { steps: 4, semitones: 6 },
  perfectFifth: { steps: 4, semitones: 7 },
  augmentedFifth: { steps: 4, semitones: 8 },
  minorSixth: { steps: 5, semitones: 8 },
  majorSixth: { steps: 5, semitones: 9 },
  minorSeventh: { steps: 6, semitones: 10 },
  majorSeventh: { steps: 6, semitones: 11 },
  octave: { steps: 7, semitones: 12 },
} as const satisfies Record<string, Interval>
