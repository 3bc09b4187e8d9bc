import type { Finger } from '../instrument'
import type { Target } from '../tape'

/** One note as heard: cents sharp (+) or flat (−) of where it belongs. Finger 0 is the open string. */
export interface Reading {
  readonly finger: Finger | 0
  readonly cents: number
}

export interface HandCheck {
  /** Nut to bridge, mm. */
  readonly lengthMm: number
  /** Where the fingers of the hand shape belong, in finger order. */
  readonly targets: readonly Target[]
  readonly readings: readonly Reading[]
  /** How far off still counts as in tune for this player, in cents. */
  readonly toleranceCents: number
}

/** One thing in the hand, with its numbers. Positive is sharp, or wide. */
export type Finding =
  /** Every finger is off by the same distance. */
  | {
      readonly code: 'whole_hand'
      readonly offsetMm: number
      readonly plusMinusMm: number
      /** False when nobody played the open string: the tuning could still be the cause. */
      readonly openStringHeard: boolean
    }
  /** The distance between the outer fingers is wrong: growing from finger to finger, or by one outer finger alone. */
  | {
      readonly code: 'frame'
      readonly errorMm: number
      readonly plusMinusMm: number
      readonly where: 'across' | 'first' | 'last'
      readonly fromFinger: Finger
      readonly toFinger: Finger
      readonly expectedMm: number
      /** The error in cents at the finger that shows it most. */
      readonly cents: number
      readonly shownBy: Finger
    }
  /** One finger is off and the rest of the hand explains nothing of it. */
  | {
      readonly code: 'finger'
      readonly finger: Finger
      readonly offsetMm: number
      readonly plusMinusMm: number
      readonly cents: number
    }

/** What was heard of one finger. */
export interface FingerSummary {
  readonly finger: Finger
  readonly target: Target
  readonly count: number
  readonly meanCents: number
  readonly meanMm: number
  /** Standard deviation; only from two notes on. */
  readonly spreadCents?: number
}

export type Verdict =
  | {
      readonly outcome: 'not_enough_notes'
      readonly fingersHeard: readonly Finger[]
      readonly fingersNeeded: number
      readonly fingers: readonly FingerSummary[]
    }
  | {
      readonly outcome: 'string_out_of_tune'
      readonly cents: number
      readonly fingers: readonly FingerSummary[]
    }
  | { readonly outcome: 'in_tune'; readonly worst: FingerSummary; readonly fingers: readonly FingerSummary[] }
  | {
      /** `several`: more than the notes can pull apart; every finger that is off stands by itself. */
      readonly outcome: 'explained' | 'several'
      /** The weightiest first. */
      readonly findings: readonly Finding[]
      /** Single causes that these notes do not rule out. */
      readonly alternatives: readonly Finding[]
      readonly fingers: readonly FingerSummary[]
    }
