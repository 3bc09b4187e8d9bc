import { creep } from './creep'
import { elbow } from './elbow'
import { extension } from './extension'
import { frame } from './frame'
import { lockedThumb } from './locked-thumb'
import { oneFinger } from './one-finger'
import { steps } from './steps'
import { string } from './string'
import { wholeHand } from './whole-hand'
import type { KindsOf } from './kind'

/** Every row of the trade that landings can show; a new one is a file here and a line below. */
export const KINDS: readonly KindsOf[] = [
  wholeHand,
  string,
  frame,
  // Where two would move the same notes alike, the one that says more comes first.
  lockedThumb,
  extension,
  oneFinger,
  steps,
  elbow,
  creep,
]

export type { Kind } from './kind'
