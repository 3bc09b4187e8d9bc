import type { Evidence, EvidenceNote } from '../evidence'
import type { Finding } from '../types'

/** One thing that can be wrong, with all that it does to the notes. */
export interface Kind {
  /** The same for ways of the same fault: a frame that grows from 1, or from its middle. */
  readonly id: string
  /** How far it moves each note for a size of one, mm; of what is no length, cents over what a mm is worth. By the note’s target alone, unless `isInTime`. */
  moves(note: EvidenceNote): number
  /** It changes while the take goes on. */
  readonly isInTime?: boolean
  /** Only upwards or downwards makes it this fault; else both. */
  readonly sign?: 1 | -1
  /** No hand: how a string is tuned. */
  readonly isTuning?: boolean
  describe(size: number, plusMinus: number): Finding
}

/** Every fault of one row of the trade that these notes can show. */
export type KindsOf = (evidence: Evidence) => readonly Kind[]

/** The stopped places of one string and position, from the nut on: what one hand holds at a time. */
export function handsOf({ places }: Pick<Evidence, 'places'>): Map<string, Evidence['places']> {
  const hands = new Map<string, Evidence['places'][number][]>()
  for (const place of places) {
    const id = handId(place)
    hands.set(id, [...(hands.get(id) ?? []), place])
  }
  for (const hand of hands.values()) hand.sort((a, b) => a.placeMm - b.placeMm)
  return hands
}

export function handId({ stringIndex, positionId }: Evidence['places'][number]): string {
  return `${stringIndex} ${positionId}`
}
