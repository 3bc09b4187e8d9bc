import { takeOfRecord, type JudgedTake, type PastRecord, type TakeRecord } from '#core'
import { landingOf, type CheckFacts } from './dto'

type Facts = Pick<CheckFacts, 'check' | 'landings'>

/** A kept check as it was judged, by what was believed then; undefined of one that can no longer be read. */
export function judgedTake(facts: Facts): JudgedTake | undefined {
  const { toleranceCents, tapesCovered, belief } = facts.check
  const take = takeOfRecord(recordOf(facts))
  return take && { ...take, toleranceCents, tapesCovered: Boolean(tapesCovered), belief }
}

/** A kept check as a take of earlier days. */
export function pastRecord(facts: Facts): PastRecord {
  const { takenAt, tapesCovered, decision, likely } = facts.check
  return {
    ...recordOf(facts),
    takenAt: takenAt.toISOString(),
    tapesCovered: Boolean(tapesCovered),
    isOverruled: decision?.says === 'overruled',
    likely,
  }
}

function recordOf({ check: { stringing, exercise, tapesMm }, landings }: Facts): TakeRecord {
  return { stringing, exercise, landings: landings.map(landingOf), tapesMm }
}
