import { mean } from 'd3-array'
import { judgeTake, landingsOnto, type StringingSnapshot } from '#core'
import type { Check } from '#contracts'
import type { StudioStore } from '../../db/studio-store'
import { instrumentRepository, type StringFacts } from '../instruments/repository'
import { stringingOfFacts } from '../instruments/reads'
import { keptVerdict, type CheckFacts } from './dto'
import { judgedTake } from './take'

/** Lengths nearer than a ruler reads are the same, mm. */
const SAME_MM = 0.5

/** What instruments are strung with now, by their ids. */
export async function strungNow(
  store: StudioStore,
  instrumentIds: Iterable<string>,
): Promise<ReadonlyMap<string, StringFacts>> {
  const strung = new Map<string, StringFacts>()
  for (const id of new Set(instrumentIds)) {
    const facts = await instrumentRepository(store).stringsOf(id)
    if (facts) strung.set(id, facts)
  }
  return strung
}

/** Whether a check was judged by other lengths than were measured last. */
export function isOutdated(facts: StringFacts | undefined, stringing: StringingSnapshot | null): boolean {
  if (!facts?.measurement || !stringing) return false
  const { lengthMm, stringLengthsMm } = facts.measurement
  return Math.abs(mean(stringing.lengthsMm)! - mean(stringLengthsMm ?? [lengthMm])!) >= SAME_MM
}

/**
 * A check as it is judged by the lengths that were measured last; null where these are the same, or it can no longer be read. Told
 * anew with every reading of it: nothing of it is kept, so that an instrument with a long past is measured as soon as any.
 */
export function rejudged(facts: StringFacts | undefined, one: CheckFacts): Check['rejudged'] {
  const { stringing: was } = one.check
  if (!was || !facts?.measurement || !isOutdated(facts, was)) return null
  const take = judgedTake(one)
  const stringing = stringingOfFacts(facts, was.system)
  if (!take || was.tuning.length !== stringing.tuning.length) return null
  const verdict = judgeTake({ ...take, stringing, landings: landingsOnto(stringing, take.landings) })
  const { beside } = one.check.verdict
  return {
    measuredOn: facts.measurement.measuredOn,
    lengthsMm: [...stringing.lengthsMm],
    // What was heard beside the places has no length.
    verdict: { ...keptVerdict(verdict), ...(beside && { beside }) },
  }
}
