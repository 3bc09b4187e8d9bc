import { rollup } from 'd3-array'
import type { Candidate } from './candidates'

/** Before anything was heard. Faults alike, whatever they are: common practice has no numbers for single ones. */
const PRIOR = { well: 0.48, one: 0.38, two: 0.14 } as const
/**
 * A fault is so many tolerances at the note that shows it most, or cents where that is more: any size between, all alike by their
 * logarithms.
 */
const FAULT_SIZES = { least: 0.75, most: 6, mostCents: 150 } as const
/** What a hand that is well may still do, in tolerances, all alike. */
const SMALL_SIZES = { least: 0, most: 0.5 } as const
/** Of the small sizes together, beside a hand that is off by nothing. */
export const SMALL_SHARE = 0.4

/** Sizes that are possible, cents at the note that shows them most. */
export interface Bounds {
  readonly least: number
  readonly most: number
  /** How probable a size is, a cent. */
  readonly density: (cents: number) => number
}

export function faultSizes(toleranceCents: number): Bounds {
  const [least, most] = [
    FAULT_SIZES.least * toleranceCents,
    Math.max(FAULT_SIZES.most * toleranceCents, FAULT_SIZES.mostCents),
  ]
  const range = Math.log(most / least)
  return { least, most, density: (cents) => 1 / (cents * range) }
}

export function smallSizes(toleranceCents: number): Bounds {
  const [least, most] = [SMALL_SIZES.least * toleranceCents, SMALL_SIZES.most * toleranceCents]
  return { least, most, density: () => 1 / (most - least) }
}

/** How usual explanations are of anybody, and how many ways each fault has, which share its chance. */
export interface Usual {
  of(candidates: readonly Candidate[]): number
  waysOf(candidates: readonly Candidate[]): number
}

export function usualOf(candidates: readonly Candidate[]): Usual {
  const ways = rollup(
    candidates,
    (own) => own.length,
    ({ key }) => key,
  )
  const pairs = Math.max(1, (ways.size * (ways.size - 1)) / 2)
  return {
    of: ({ length }) => [PRIOR.well, PRIOR.one / ways.size, PRIOR.two / pairs][length]!,
    waysOf: (some) => some.reduce((product, one) => product * ways.get(one.key)!, 1),
  }
}
