import type { Stringing } from '../instrument'
import { pitchOfExpected, targetsOf, type Exercise, type ExpectedNote } from '../take'
import { faultyHand, STEADY_HAND, type HandFaults } from './hand'
import type { RandomSource } from './player'

/** A vibrato. */
export interface Vibrato {
  readonly rateHz: number
  /** From its lowest to its highest pitch. */
  readonly widthCents: number
  /** How far it swings above the note: 0 for one that goes downwards and back, as taught. */
  readonly aboveCents: number
}

/** How an exercise is played. */
export interface Manner {
  readonly stroke: 'bow' | 'pluck'
  /** Notes a minute. */
  readonly tempo: number
  /** Part of each note's time that is silence before the next. */
  readonly rest: number
  /** Notes a bow: all but the first of each are slurred. */
  readonly slurred: number
  readonly vibrato: Vibrato | null
  /** When the ear begins to move a note, from its beginning, and how long that takes, seconds. */
  readonly repair: { readonly afterS: number; readonly lastsS: number }
  readonly faults: HandFaults
  readonly tapesCovered: boolean
}

export const PLAIN_MANNER: Manner = {
  stroke: 'bow',
  tempo: 80,
  rest: 0,
  slurred: 1,
  vibrato: null,
  repair: { afterS: 0.25, lastsS: 0.15 },
  faults: STEADY_HAND,
  tapesCovered: false,
}

/** How well a player plays. */
export const PLAYER_LEVELS = ['beginner', 'intermediate', 'trained'] as const
export type PlayerLevel = (typeof PLAYER_LEVELS)[number]

/**
 * What sets the levels apart: scatter, so that nearly all notes lie within the tolerance of the level (20 and 10 cents,
 * docs/trade.md § 7), an ear that mends more, a steadier finger, a faster pace. From memory.
 */
const LEVELS: Record<
  PlayerLevel,
  Pick<Manner, 'tempo'> & Pick<HandFaults, 'scatterCents' | 'repairs' | 'wobbleCents'>
> = {
  beginner: { tempo: 60, scatterCents: 10, repairs: 0.3, wobbleCents: 4 },
  intermediate: { tempo: 80, scatterCents: 7, repairs: 0.5, wobbleCents: 2 },
  trained: { tempo: 100, scatterCents: 4, repairs: 0.8, wobbleCents: 1 },
}

/** The manner of a player of this level whose hand has these faults beside. */
export function mannerOf(level: PlayerLevel, faults: Partial<HandFaults> = {}): Manner {
  const { tempo, ...hand } = LEVELS[level]
  return { ...PLAIN_MANNER, tempo, faults: { ...STEADY_HAND, ...hand, ...faults } }
}

/** One note as it was played: the truth that an ear is held against. */
export interface PlayedNote extends ExpectedNote {
  /** Which note of the exercise, from 0. */
  readonly index: number
  readonly startS: number
  readonly endS: number
  /** Pitch of the note as written, cents above A4. */
  readonly writtenCents: number
  /** Where it began and where the ear left it, off the note as written. */
  readonly landingCents: number
  readonly settledCents: number
  /** The bow did not change and no finger was lifted off the string before it. */
  readonly isSlurred: boolean
}

/** A performance: its notes, and how each of them sounded. */
export interface Performance {
  readonly stringing: Stringing
  readonly manner: Manner
  readonly notes: readonly PlayedNote[]
}

/** Plays an exercise once, in `manner`: the same source, the same performance. Begins with a third of a second of silence. */
export function perform(
  source: RandomSource,
  stringing: Stringing,
  exercise: Exercise,
  manner: Partial<Manner> = {},
): Performance {
  const full: Manner = { ...PLAIN_MANNER, ...manner }
  const { faults, tapesCovered, tempo, rest } = full
  const hand = faultyHand(source, stringing, exercise, faults, { tapesCovered })
  const lastsS = 60 / tempo
  const notes = targetsOf(stringing, exercise).map((target, index, all): PlayedNote => {
    const landingCents = hand(target, all.length > 1 ? index / (all.length - 1) : 0)
    const startS = 0.35 + index * lastsS
    const before = all[index - 1]
    return {
      stringIndex: target.stringIndex,
      finger: target.finger,
      note: target.note,
      positionId: target.positionId,
      index,
      startS,
      endS: startS + lastsS * (1 - rest),
      writtenCents: pitchOfExpected(stringing, target),
      landingCents,
      settledCents: target.finger === 0 ? landingCents : landingCents * (1 - faults.repairs),
      isSlurred: full.stroke === 'bow' && index % full.slurred > 0 && isSlurrable(before, target),
    }
  })
  return { stringing, manner: full, notes }
}

/** On one string, to another finger: the same note twice in one bow is one note. */
function isSlurrable(before: ExpectedNote | undefined, to: ExpectedNote): boolean {
  return before?.stringIndex === to.stringIndex && before.finger !== to.finger
}
