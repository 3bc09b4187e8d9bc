import type { Finger } from '../instrument'
import type { Take, Target } from '../take'

/** A take on one string, and how far off still counts as in tune for its player. */
export interface JudgedTake extends Take {
  readonly toleranceCents: number
}

/** What was heard of one string, ready to be explained. */
export interface HeardString {
  readonly stringing: JudgedTake['stringing']
  readonly stringIndex: number
  /** Of the exercise's fingers, each once, in finger order. */
  readonly targets: readonly FingerTarget[]
  readonly fingers: readonly FingerSummary[]
  /** Of one note. */
  readonly sigmaCents: number
}

/** The place of a finger, as against an open string's. */
export type FingerTarget = Target & { readonly finger: Finger }

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
  readonly target: FingerTarget
  readonly count: number
  readonly meanCents: number
  /** From its place, towards the bridge. */
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
