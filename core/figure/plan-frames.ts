import type { HoldId } from '../instrument'

const L = { shoulder: 328, knees: 690, standing: 1050 } as const
/** Semitones above the open string under each finger in first position; the bass’s third rests by its fourth. */
const SEMITONES: Record<HoldId, readonly [number, number, number, number]> = {
  shoulder: [2, 4, 5, 7],
  knees: [2, 3, 4, 5],
  standing: [2, 3, 3.5, 4],
}

/** mm from the nut of each finger in first position at full size: x = L (1 − 2^(−s/12)), docs/trade.md § 2. */
export function frameWidths(hold: HoldId): Readonly<Record<1 | 2 | 3 | 4, number>> {
  const [one, two, three, four] = SEMITONES[hold].map((s) => L[hold] * (1 - 2 ** (-s / 12))) as [
    number,
    number,
    number,
    number,
  ]
  return { 1: one, 2: two, 3: three, 4: four }
}
