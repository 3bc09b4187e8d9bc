import { mean, rollups } from 'd3-array'
import type { Digit } from '#core'
import type { Check } from '#contracts'

/** The mean landing of each finger in a kept check, in cents off its place, as it was judged that day. */
export function landingsOf({
  landings,
}: Pick<Check, 'landings'>): { finger: Exclude<Digit, 0>; cents: number }[] {
  return rollups(
    landings,
    (own) => mean(own, (l) => l.cents) ?? 0,
    (l) => l.finger,
  )
    .flatMap(([finger, cents]) => (finger === 0 ? [] : [{ finger, cents }]))
    .sort((a, b) => a.finger - b.finger)
}
