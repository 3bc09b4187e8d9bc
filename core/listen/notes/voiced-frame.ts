import { median } from 'd3-array'
import { stretchS } from '../pitch'
import type { HeardNote, HeardPitch } from './heard-note'

/** A frame with a pitch. */
export interface VoicedFrame {
  readonly atS: number
  /** Above 440 Hz. */
  readonly cents: number
  readonly sigmaCents: number
  readonly confidence: number
  readonly levelDb: number
  /** Of the sound's slope against the sound itself: high partials weigh more in it. */
  readonly brightnessDb: number
  readonly stiffness: number
}

/** What is known of a note before its pitches are read. */
export interface NoteFacts {
  /** The note’s plateau. */
  readonly cents: number
  readonly startS: number
  readonly endS: number
  readonly begins: HeardNote['begins']
  readonly hopS: number
}

/**
 * What no single note of this pitch (cents above 440 Hz) is known better than, cents: the bow's friction shakes a low string more. Of
 * recorded strings (docs/bench.md, "Recorded strings").
 */
export function frictionCents(cents: number): number {
  return FRICTION_CENTS * Math.max(1, 2 ** (-cents / 2400))
}
/** At 440 Hz; elsewhere by the root of the period. */
const FRICTION_CENTS = 0.25

/** The median of frames that say one pitch. Stretches overlap: as many count as would lie side by side. */
export function pitchOf(frames: readonly VoicedFrame[], hopS: number): HeardPitch {
  const cents = median(frames, (f) => f.cents)!
  const [fromS, toS] = [frames[0]!.atS, frames.at(-1)!.atS]
  const apart = Math.max(1, (toS - fromS + hopS) / stretchS(440 * 2 ** (cents / 1200)))
  const scatter = 1.4826 * median(frames, (f) => Math.abs(f.cents - cents))!
  const noise = median(frames, (f) => f.sigmaCents)!
  // The median of normal errors is known a quarter less well than their mean.
  const sigmaCents = 1.2533 * Math.hypot(Math.max(scatter, noise) / Math.sqrt(apart), frictionCents(cents))
  return { cents, sigmaCents, fromS, toS }
}
