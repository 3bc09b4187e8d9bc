import { rollups, sum } from 'd3-array'
import { logSum } from '../stats'
import { faultKey, type Candidate } from './candidates'
import type { EvidenceNote } from './evidence'
import type { Believed, Likely } from './types'

/** One explanation of all notes: none, one or two candidates at once, and how probable it is beside all others. */
export interface Weighed {
  readonly candidates: readonly Candidate[]
  readonly probability: number
  /** The same as a logarithm, which does not end near 1. */
  readonly log: number
  /** How probable its faults are of anybody, before anything was heard. */
  readonly usual: number
}

export interface Weighing {
  readonly notes: readonly EvidenceNote[]
  /** The most probable first; with `candidates` empty the hand that is well. */
  readonly explanations: readonly Weighed[]
  /** Standard deviation of one note about the best of them, cents. */
  readonly scatterCents: number
  readonly reckons: Reckons
}

/** A size as it is told: cents at the note that shows it most, and how far the true one may be from it with 95 %. */
export interface Size {
  readonly cents: number
  readonly plusMinusCents: number
}

/** What follows from explanations, by the evidence that they were weighed by. */
export interface Reckons {
  scatterCents(best: readonly Candidate[]): number
  /** Sizes of an explanation that was named since it was more probable than `bar`; none is below `leastCents`. */
  sizes(weighing: Weighing, candidates: readonly Candidate[], bar: number, leastCents: number): Size[]
  /** About how many notes more would make the first explanation this many times as probable as all others; Infinity where none would. */
  more(weighing: Weighing, wantedOdds: number): number
}

/** Explanations before they share one probability. */
export type Unweighed = Omit<Weighed, 'probability'>

export function weighingOf(
  notes: Weighing['notes'],
  explained: readonly Unweighed[],
  reckons: Reckons,
): Weighing {
  const total = logSum(explained.map(({ log }) => log))
  const explanations = explained
    .map((one): Weighed => ({ ...one, log: one.log - total, probability: Math.exp(one.log - total) }))
    .sort((a, b) => b.log - a.log)
  return { notes, explanations, scatterCents: reckons.scatterCents(explanations[0]!.candidates), reckons }
}

/** The same notes, weighed with what is believed of the hand in part of the place of what is usual of anybody. */
export function believing({ notes, explanations, reckons }: Weighing, belief: Believed): Weighing {
  const believed = explanations.map((one): Unweighed => {
    const own = belief.likely[faultKey(one.candidates)] ?? 0
    const share = (1 - belief.share) * one.usual + belief.share * own
    return { ...one, log: one.log + Math.log(share / one.usual) }
  })
  return weighingOf(notes, believed, reckons)
}

/** What a take by itself makes likely, as it is kept for later ones; what is less likely than this is left out. */
const LEAST_LIKELY = 0.002
export function likelyOf({ explanations }: Weighing): Likely {
  const byFault = rollups(
    explanations,
    (ways) => sum(ways, ({ probability }) => probability),
    ({ candidates }) => faultKey(candidates),
  )
  return Object.fromEntries(byFault.filter(([, probability]) => probability >= LEAST_LIKELY))
}
