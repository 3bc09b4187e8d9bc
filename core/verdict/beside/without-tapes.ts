import { group, greatest, mean, variance } from 'd3-array'
import { studentsT } from '../../stats'
import { evidenceOf, type Evidence } from '../evidence'
import type { Finding, JudgedTake } from '../types'
import { SURE_OF_FOUR } from './beside'

const LEAST_NOTES = 2
/** With the tapes in sight a finger was right within this part of the tolerance. */
const RIGHT = 0.75

/**
 * A finger that was right in sight of the tapes and is off now that they are covered: it depends on the tape. Compared with the
 * earlier takes of the same hand, by Welch’s test.
 * Source: B. L. Welch, The generalization of “Student’s” problem, Biometrika 34 (1947) 28.
 */
export function withoutTapes(take: JudgedTake, { notes, toleranceCents }: Evidence): Finding | undefined {
  const seen = (take.earlier ?? []).filter(({ tapesCovered }) => !tapesCovered)
  if (!take.tapesCovered || seen.length === 0) return undefined
  const before = group(
    seen.flatMap((earlier) => evidenceOf({ ...earlier, toleranceCents }).notes),
    ({ target }) => target.finger,
  )
  const found = [...group(notes, ({ target }) => target.finger)].flatMap(([finger, own]) => {
    const earlier = before.get(finger) ?? []
    if (own.length < LEAST_NOTES || earlier.length < LEAST_NOTES) return []
    const [now, then] = [own.map(({ cents }) => cents), earlier.map(({ cents }) => cents)]
    const [cents, seenCents] = [mean(now)!, mean(then)!]
    if (Math.abs(cents) <= toleranceCents || Math.abs(seenCents) > RIGHT * toleranceCents) return []
    return isApart(now, then) ? [{ finger, cents, seenCents }] : []
  })
  const worst = greatest(found, ({ cents }) => Math.abs(cents))
  return worst && { code: 'without_tapes', ...worst }
}

function isApart(a: readonly number[], b: readonly number[]): boolean {
  const [va, vb] = [variance(a)! / a.length, variance(b)! / b.length]
  const error = Math.sqrt(va + vb)
  if (!(error > 0)) return true
  const freedom = (va + vb) ** 2 / (va ** 2 / (a.length - 1) + vb ** 2 / (b.length - 1))
  return Math.abs(mean(a)! - mean(b)!) > studentsT(1 - (1 - SURE_OF_FOUR) / 2, freedom) * error
}
