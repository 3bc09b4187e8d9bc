import type { HandFaults } from '#core'

/** What a simulated student's hand may do, by the name a teacher gives it; sizes that a teacher would notice. */
export const SIMULATED_FAULTS: readonly {
  readonly id: string
  readonly label: string
  readonly faults: Partial<HandFaults>
}[] = [
  { id: 'none', label: 'A good hand', faults: {} },
  { id: 'high', label: 'Whole hand too far up', faults: { handOffsetMm: 2.5 } },
  { id: 'low', label: 'Whole hand too far back', faults: { handOffsetMm: -2.5 } },
  { id: 'narrow', label: 'Frame too narrow', faults: { frameErrorMm: -5 } },
  { id: 'wide', label: 'Frame too wide', faults: { frameErrorMm: 4 } },
  { id: 'second', label: '2 too low', faults: { fingerOffsetMm: { 2: -4 } } },
  { id: 'fourth', label: '4 too short', faults: { fingerOffsetMm: { 4: -5 } } },
  { id: 'untuned', label: 'String out of tune', faults: { stringCents: -14 } },
  { id: 'creeping', label: 'Hand creeps up', faults: { creepMm: 4 } },
]

export const SURPRISE = 'surprise'

/** The faults that were chosen; of a surprise nobody knows which. */
export function faultsOf(id: string, random: () => number): Partial<HandFaults> {
  const chosen =
    id === SURPRISE
      ? SIMULATED_FAULTS[Math.floor(random() * SIMULATED_FAULTS.length)]
      : SIMULATED_FAULTS.find((one) => one.id === id)
  return chosen?.faults ?? {}
}
