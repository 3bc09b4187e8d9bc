import { group, mean, rollup, sum } from 'd3-array'
import type { Finger } from '../instrument'
import { fitLine } from '../stats'
import { isSamePlace } from '../take'
import { evidenceOf, isInOrder, type Evidence, type EvidenceNote } from './evidence'
import { handsOf } from './kinds/kind'
import type { JudgedTake } from './types'

/** A take in a few numbers, as a history draws it. Null where its notes do not say. */
export interface TakeSummary {
  /** Stopped notes that were neither wild nor written twice. */
  readonly count: number
  /** Mean over the fingers, cents; sharp is positive. */
  readonly biasCents: number
  /** Standard deviation of one note about its own place’s mean. */
  readonly scatterCents: number | null
  /** Last finger from first, against what the exercise asks, mm; wide is positive. */
  readonly frameMm: number | null
  /** From the first note to the last, cents. */
  readonly driftCents: number | null
  readonly fingers: readonly { readonly finger: Finger; readonly cents: number; readonly count: number }[]
}

/** Fewer notes say nothing of a change with time. */
const LEAST_NOTES = 6

/** Undefined of a take without a stopped note. */
export function summaryOf(take: JudgedTake): TakeSummary | undefined {
  const evidence = evidenceOf(take)
  const notes = evidence.notes.filter(({ weight }) => weight > 0)
  if (notes.length === 0) return undefined
  const fingers = [...group(notes, ({ target }) => target.finger)]
    .map(([finger, own]) => ({ finger, cents: mean(own, ({ cents }) => cents)!, count: own.length }))
    .sort((a, b) => a.finger - b.finger)
  // Notes of one place share its target.
  const means = rollup(
    notes,
    (own) => mean(own, ({ cents }) => cents)!,
    ({ target }) => target,
  )
  const left = notes.map(({ target, cents }) => cents - means.get(target)!)
  const freedom = notes.length - means.size
  const line =
    notes.length < LEAST_NOTES || !isInOrder(notes)
      ? undefined
      : fitLine(notes.map(({ through }, i) => ({ x: through, y: left[i]! })))
  return {
    count: notes.length,
    biasCents: mean(fingers, ({ cents }) => cents)!,
    scatterCents: freedom > 1 ? Math.sqrt(sum(left, (off) => off ** 2) / freedom) : null,
    frameMm: frameOf(evidence, notes),
    driftCents: line?.slope ?? null,
    fingers,
  }
}

function frameOf(evidence: Evidence, notes: readonly EvidenceNote[]): number | null {
  const offMm = (place: EvidenceNote['target']) =>
    mean(
      notes.filter(({ target }) => isSamePlace(target, place)),
      ({ cents, centsPerMm }) => cents / centsPerMm,
    )
  const errors = [...handsOf(evidence).values()].flatMap((hand) => {
    const [first, last] = [hand[0], hand.at(-1)]
    if (!first || !last || first.finger >= last.finger) return []
    const [low, high] = [offMm(first), offMm(last)]
    return low === undefined || high === undefined ? [] : [high - low]
  })
  return mean(errors) ?? null
}
