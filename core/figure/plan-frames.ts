/** How a hand lies on the board in these drawings: the violin’s and viola’s, the cello’s, the bass’s. */
export type PlanFamily = 'upper' | 'cello' | 'bass'

const L = { upper: 328, cello: 690, bass: 1050 } as const
/** Semitones above the open string under each finger in first position; the bass’s third rests by its fourth. */
const SEMITONES: Record<PlanFamily, readonly [number, number, number, number]> = {
  upper: [2, 4, 5, 7],
  cello: [2, 3, 4, 5],
  bass: [2, 3, 3.5, 4],
}

/** mm from the nut of each finger in first position at full size: x = L (1 − 2^(−s/12)), docs/trade.md § 2. */
export function frameWidths(family: PlanFamily): Readonly<Record<1 | 2 | 3 | 4, number>> {
  const [one, two, three, four] = SEMITONES[family].map((s) => L[family] * (1 - 2 ** (-s / 12))) as [
    number,
    number,
    number,
    number,
  ]
  return { 1: one, 2: two, 3: three, 4: four }
}
