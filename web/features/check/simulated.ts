import type { HandFaults } from '#core'

/** The string length for which the sizes below are told: a whole violin's, mm. */
const FOR_MM = 328

/** What a simulated student's hand may do, by the name a teacher gives it; `of` a whole violin's size, in mm that she would notice. */
export const SIMULATED_FAULTS: readonly {
  readonly id: string
  readonly label: string
  readonly faults: (of: number) => Partial<HandFaults>
}[] = [
  { id: 'none', label: 'A good hand', faults: () => ({}) },
  { id: 'high', label: 'Whole hand too far up', faults: (of) => ({ handOffsetMm: 2.5 * of }) },
  { id: 'low', label: 'Whole hand too far back', faults: (of) => ({ handOffsetMm: -2.5 * of }) },
  { id: 'narrow', label: 'Frame too narrow', faults: (of) => ({ frameErrorMm: -5 * of }) },
  { id: 'wide', label: 'Frame too wide', faults: (of) => ({ frameErrorMm: 4 * of }) },
  { id: 'second', label: '2 too low', faults: (of) => ({ fingerOffsetMm: { 2: -4 * of } }) },
  { id: 'fourth', label: '4 too short', faults: (of) => ({ fingerOffsetMm: { 4: -5 * of } }) },
  { id: 'untuned', label: 'String out of tune', faults: () => ({ stringCents: -14 }) },
  { id: 'creeping', label: 'Hand creeps up', faults: (of) => ({ creepMm: 8 * of }) },
]

export const SURPRISE = 'surprise'

/** The faults that were chosen, on strings of this length; of a surprise nobody knows which. */
export function faultsOf(id: string, lengthMm: number, random: () => number): Partial<HandFaults> {
  const chosen =
    id === SURPRISE
      ? SIMULATED_FAULTS[Math.floor(random() * SIMULATED_FAULTS.length)]
      : SIMULATED_FAULTS.find((one) => one.id === id)
  return chosen?.faults(lengthMm / FOR_MM) ?? {}
}
