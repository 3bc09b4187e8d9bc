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

const I = INTERVALS

/** The usual spelling of each semitone above a note, from the unison to the octave: as in any primer, the tritone raised. */
export const CHROMATIC: readonly Interval[] = [
  { steps: 0, semitones: 0 },
  I.minorSecond,
  I.majorSecond,
  I.minorThird,
  I.majorThird,
  I.perfectFourth,
  I.augmentedFourth,
  I.perfectFifth,
  I.minorSixth,
  I.majorSixth,
  I.minorSeventh,
  I.majorSeventh,
  I.octave,
]

/** A number of semitones as a spelled interval; beyond the octave an octave and what is left of it. */
export function spelledInterval(semitones: number): Interval {
  const octaves = Math.floor(semitones / 12)
  const rest = CHROMATIC[semitones - 12 * octaves]!
  return { steps: rest.steps + 7 * octaves, semitones }
}

/** Two intervals one on the other. */
export function sumOf(a: Interval, b: Interval): Interval {
  return { steps: a.steps + b.steps, semitones: a.semitones + b.semitones }
}
