import { mean } from 'd3-array'
import { judgeTake, landingsOnto, type StringingSnapshot } from '#core'
import type { StudioStore } from '../../db/studio-store'
import { instrumentRepository } from '../instruments/repository'
import { stringingOfFacts } from '../instruments/service'
import { keptVerdict } from './dto'
import { checkRepository } from './repository'
import { judgedTake } from './take'

/** Lengths nearer than a ruler reads are the same, mm. */
const SAME_MM = 0.5
/** Checks read at once. */
const BATCH = 100

/**
 * Judges every check of an instrument once more by the lengths that were measured last, beside what was kept: of those whose
 * lengths were the same nothing is kept. Other lines may go between.
 */
export async function rejudgeInstrument(
  store: StudioStore,
  instrumentId: string,
  measuredOn: string,
): Promise<void> {
  const repository = checkRepository(store)
  const facts = await instrumentRepository(store).stringsOf(instrumentId)
  if (!facts) return
  for (let after = ''; ;) {
    const checks = await repository.ofInstrument(instrumentId, after, BATCH)
    const last = checks.at(-1)
    if (!last) return
    after = last.check.id
    for (const one of checks) {
      const { check } = one
      const take = judgedTake(one)
      if (!take || !check.stringing) continue
      const stringing = stringingOfFacts(facts, check.stringing.system)
      const isSame =
        isAlike(check.stringing, stringing.lengthsMm) ||
        check.stringing.tuning.length !== stringing.tuning.length
      const rejudged = isSame
        ? null
        : {
            measuredOn,
            lengthsMm: [...stringing.lengthsMm],
            verdict: keptVerdict(
              judgeTake({ ...take, stringing, landings: landingsOnto(stringing, take.landings) }),
            ),
          }
      if (rejudged || check.rejudged) await repository.setRejudged(check.id, rejudged)
    }
  }
}

function isAlike({ lengthsMm }: StringingSnapshot, others: readonly number[]): boolean {
  return Math.abs(mean(lengthsMm)! - mean(others)!) < SAME_MM
}
