import { takeOfRecord, type EarlierTake, type JudgedTake } from '#core'
import type { CheckFacts } from './dto'
import { landingOf } from './dto'

const DAY_MS = 86_400_000

/** A kept check as it was judged; undefined of one that can no longer be read. */
export function judgedTake({
  check,
  landings,
}: Pick<CheckFacts, 'check' | 'landings'>): JudgedTake | undefined {
  const take = takeOfRecord({
    stringing: check.stringing,
    exercise: check.exercise,
    landings: landings.map(landingOf),
    tapesMm: check.tapesMm,
  })
  return take && { ...take, toleranceCents: check.toleranceCents, tapesCovered: Boolean(check.tapesCovered) }
}

/** Kept checks as evidence of earlier days for one that was taken at `takenAt`. */
export function earlierTakes(facts: readonly CheckFacts[], takenAt: Date): EarlierTake[] {
  return facts.flatMap((one) => {
    const take = judgedTake(one)
    // What a teacher has overruled says nothing of the hand.
    if (!take || one.check.decision?.says === 'overruled') return []
    const daysAgo = (takenAt.getTime() - one.check.takenAt.getTime()) / DAY_MS
    return [{ ...take, daysAgo, tapesCovered: take.tapesCovered ?? false }]
  })
}
