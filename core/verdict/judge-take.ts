import { greatest } from 'd3-array'
import type { Take } from '../take'
import { FINGERS_NEEDED, judgeHand } from './judge'
import type { Finding, JudgedTake, Verdict } from './types'

/** What a take says of the hand on one string in one position. */
export interface HandVerdict {
  readonly stringIndex: number
  /** Id of one of the family’s positions; null where nobody knows it. */
  readonly positionId: string | null
  readonly verdict: Verdict
}

/**
 * Judges every hand of a take by itself: the notes of one string in one position, with the open string they are held
 * against. In the order of the strings, the lowest first, and of the positions as they are played.
 */
export function judgeTake({ exercise, landings, ...rest }: JudgedTake): HandVerdict[] {
  return handsOf(exercise).map(({ stringIndex, positionId }) => {
    const isOfHand = (one: Take['landings'][number] | Take['exercise']['notes'][number]) =>
      one.stringIndex === stringIndex && (one.finger === 0 || one.positionId === positionId)
    const verdict = judgeHand({
      ...rest,
      exercise: { ...exercise, notes: exercise.notes.filter(isOfHand) },
      landings: landings.filter(isOfHand),
    })
    return { stringIndex, positionId, verdict }
  })
}

/** The verdict that is said first: an untuned string, then the worst hand, then a good one; of too few notes at last. */
export function leadingVerdict(hands: readonly HandVerdict[]): HandVerdict | undefined {
  return greatest(hands, (a, b) => rank(a.verdict) - rank(b.verdict) || weight(a.verdict) - weight(b.verdict))
}

/** Of a take of which nothing is known. */
export const NOTHING_HEARD: Verdict = {
  outcome: 'not_enough_notes',
  fingersHeard: [],
  fingersNeeded: FINGERS_NEEDED,
  fingers: [],
}

function handsOf({ notes }: Take['exercise']): Pick<HandVerdict, 'stringIndex' | 'positionId'>[] {
  const hands = new Map<string, Pick<HandVerdict, 'stringIndex' | 'positionId'>>()
  for (const { finger, stringIndex, positionId } of notes)
    if (finger !== 0) hands.set(`${stringIndex} ${positionId}`, { stringIndex, positionId })
  return [...hands.values()].sort((a, b) => a.stringIndex - b.stringIndex)
}

function rank({ outcome }: Verdict): number {
  return { not_enough_notes: 0, in_tune: 1, several: 2, explained: 2, string_out_of_tune: 3 }[outcome]
}

/** How far off it is, mm or, of a string or a good hand, cents; of two unheard hands the one of which more is known. */
function weight(verdict: Verdict): number {
  if (verdict.outcome === 'string_out_of_tune') return Math.abs(verdict.cents)
  if (verdict.outcome === 'explained' || verdict.outcome === 'several')
    return Math.abs(sizeMm(verdict.findings[0]))
  return verdict.outcome === 'in_tune' ? Math.abs(verdict.worst.meanCents) : verdict.fingers.length
}

function sizeMm(finding: Finding | undefined): number {
  if (!finding) return 0
  return finding.code === 'frame' ? finding.errorMm : finding.offsetMm
}
