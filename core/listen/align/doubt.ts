import { sum } from 'd3-array'
import type { HeardNote } from '../notes'
import type { Match } from './align'

/**
 * Why a note that was heard is not judged: far softer than the others (somebody else, or the room), a short softer end of the note
 * before (the room rings on), heard in another octave than the rest, or too unsteady to have one pitch.
 */
export type Doubt = 'faint' | 'rings' | 'octave' | 'unsteady'

/** So much softer than the median of the take is not this player, dB. From recorded strings and a second player 12 dB softer. */
const FAINT_DB = 12
/** A repetition that is so short, and softer by so much, is what is left of the note before. */
const RINGS = { lastsS: 0.25, softerDb: 3 } as const
/** A landing that is known no better is none. */
const UNSTEADY_CENTS = 14
/** Pitches of a voice: shorter than this, or known no better; and the part of all that is heard that makes company of them. */
const FRAGMENT = { lastsS: 0.3, sigmaCents: 8, ofAll: 0.12, count: 3 } as const
/** Whether a note that was heard is judged; `take` is what the rest of it was like. */
export function doubtOf(
  { startS, endS, levelDb, landing }: HeardNote,
  { octaves, how }: Extract<Match, { kind: 'meant' }>,
  take: { readonly octaves: number; readonly loudDb: number },
): Doubt | undefined {
  if (levelDb < take.loudDb - FAINT_DB) return 'faint'
  const isShort = endS - startS < RINGS.lastsS
  if (how === 'repeated' && isShort && levelDb < take.loudDb - RINGS.softerDb) return 'rings'
  if (octaves !== take.octaves) return 'octave'
  return landing.sigmaCents > UNSTEADY_CENTS ? 'unsteady' : undefined
}

/** Too short or too unsteady to be a note that somebody practises. */
export function isFragment({ startS, endS, landing, wobbleCents }: HeardNote): boolean {
  return endS - startS < FRAGMENT.lastsS || Math.max(landing.sigmaCents, wobbleCents) > FRAGMENT.sigmaCents
}

/** Whether what does not belong makes up so much of a take that somebody talks or plays beside. */
export function isCompany(strange: readonly HeardNote[], heard: readonly HeardNote[]): boolean {
  const lasts = (all: readonly HeardNote[]) => sum(all, ({ startS, endS }) => endS - startS)
  return strange.length >= FRAGMENT.count && lasts(strange) > FRAGMENT.ofAll * lasts(heard)
}
