import type { Finger } from '../instrument'

/** One string of a kept check: how far off each finger was on average, cents. */
export interface GateCheck {
  readonly takenOn: string
  /** The open string’s name. */
  readonly string: string
  /** Where the hand lay. */
  readonly positionId: string
  readonly tapesCovered: boolean
  readonly toleranceCents: number
  readonly fingers: readonly { readonly finger: Finger; readonly meanCents: number }[]
}
