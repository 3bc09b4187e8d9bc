import { randomNormal } from 'd3-random'
import { BODY_MM } from '../figure'
import { centsOnString, THUMB, type Finger, type Stringing } from '../instrument'
import { targetsOf, type Exercise, type Target } from '../take'
import type { RandomSource } from './player'

/**
 * What goes wrong in a body rather than in the notes: the hand's place along the neck, the thumb, the palm's side, the web, the
 * knuckles, the wrist, the elbow, and single fingers. Which notes it moves is left to the geometry. What they are is common practice,
 * no source: docs/body.md.
 */
export const BODY_FAULTS = [
  'hand_back',
  'hand_forward',
  'thumb_creeps',
  'palm_out',
  'web_closed',
  'knuckles_squashed',
  'elbow_out',
  'fourth_straight',
  'finger_1_leans',
  'finger_2_leans',
  'finger_3_leans',
] as const
export type BodyFault = (typeof BODY_FAULTS)[number]

/** Lengths of fingers beside the second's. Common practice, no source. */
const FINGER_LENGTHS: Record<Finger, number> = { 1: 0.92, 2: 1, 3: 0.96, 4: 0.78 }
/** How much of the frame the base knuckles span: fingertips spread further than their roots. */
const ROW = 0.62
/** The middle of the row lies behind the middle of the frame, by this part of it: a hand stands at its first finger. */
const ROW_BEHIND = 0.11
/** From the row of knuckles to the nearest string, and from string to string, of what a first position's frame is wide. */
const AWAY = 0.42
const STRINGS_APART = 0.09
/** The part of the way to a lower string that the elbow brings the hand; the finger stretches the rest. */
const ELBOW_BRINGS = 0.7

/** Where the fingers of one hand land, in cents off their notes; `through` (0 … 1) of the exercise has been played. */
export type BonesHand = (target: Target, through: number) => number

/**
 * A left hand of bones on one instrument, with one thing wrong by `amount` (mm at full size, of a finger that leans too; negative: the
 * other way). Each finger has learned from a hand that stands right how far to the side of its root its tip goes. A root that moves
 * takes the tip with it; a finger that has to stretch further across gives up as much of its way to the side; none reaches further
 * than its bones are long.
 */
export function handOfBones(
  stringing: Stringing,
  exercise: Exercise,
  fault: BodyFault | null,
  amount: number,
): BonesHand {
  const targets = targetsOf(stringing, exercise).filter(({ finger }) => finger !== 0)
  const places = targets.map(({ placeMm }) => placeMm)
  const [first, last] = [Math.min(...places), Math.max(...places)]
  const frame = last - first
  const middle = (first + last) / 2 - ROW_BEHIND * frame
  const rootOf = (finger: Finger) => middle + ((finger - 2.5) / 3) * ROW * frame
  const top = stringing.tuning.length - 1
  return (target, through) => {
    if (!isFinger(target.finger)) return 0
    const { finger, stringIndex, placeMm } = target
    const lower = top - stringIndex
    const across = frame * (AWAY + STRINGS_APART * lower * (1 - ELBOW_BRINGS))
    const side = placeMm - rootOf(finger)
    const { rootMm, awayMm, sideMm } = moved(
      fault,
      amount,
      finger,
      lower / top,
      through,
      rootOf(finger) - middle,
    )
    const now = Math.max(across / 2, across + awayMm)
    const longest = (frame / FULL_FRAME_MM) * FINGER_LENGTHS[finger] * sum(BODY_MM.finger)
    const reaches = Math.sqrt(Math.max(0, longest ** 2 - now ** 2))
    const asked = (side + sideMm) * (across / now)
    const landedMm = rootOf(finger) + rootMm + Math.sign(asked) * Math.min(Math.abs(asked), reaches)
    return centsOnString(stringing, stringIndex, landedMm) - target.cents
  }
}

/** The frame that a full-grown hand's bones are for, mm: the violin's. */
const FULL_FRAME_MM = 73
const sum = (lengths: readonly number[]) => lengths.reduce((all, one) => all + one, 0)

function isFinger(digit: Target['finger']): digit is Finger {
  return digit !== 0 && digit !== THUMB
}

/** How a fault moves a finger's root along and away from the strings, and its tip to the side, mm. */
interface Moved {
  readonly rootMm: number
  readonly awayMm: number
  readonly sideMm: number
}
const STILL: Moved = { rootMm: 0, awayMm: 0, sideMm: 0 }

function moved(
  fault: BodyFault | null,
  amount: number,
  finger: Finger,
  lowness: number,
  through: number,
  fromMiddle: number,
): Moved {
  /** From the first finger's side of the hand to the fourth's, 0 … 1. */
  const outer = (finger - 1) / 3
  switch (fault) {
    case null:
      return STILL
    case 'hand_back':
      return { ...STILL, rootMm: -amount }
    case 'hand_forward':
      return { ...STILL, rootMm: amount }
    case 'thumb_creeps':
      return { ...STILL, rootMm: amount * through }
    case 'palm_out':
      // The hand turns about its first finger: the others' roots leave the strings.
      return { ...STILL, awayMm: amount * outer }
    case 'web_closed':
      // The neck sinks in beside the first finger, the hand tips over it.
      return { ...STILL, awayMm: amount * outer ** 2 }
    case 'knuckles_squashed':
      return { ...STILL, rootMm: -Math.sign(fromMiddle) * amount * Math.abs(2 * outer - 1) }
    case 'elbow_out':
      return { ...STILL, awayMm: amount * lowness * (0.25 + 0.75 * outer) }
    case 'fourth_straight':
      return finger === 4 ? { ...STILL, sideMm: -amount } : STILL
    default:
      return finger === Number(fault.charAt(7)) ? { ...STILL, sideMm: amount } : STILL
  }
}

/** Of all that scatters of a player the part that the whole hand does, slowly; the fingers do the rest, each by itself. */
const HAND_SHARE = 0.45
/** A hand that is off is still off at the next note, by this part. */
const HAND_STAYS = 0.8
/** Degrees of freedom of a finger's own slips: a few are large (Student's t). */
const HEAVY = 4

/** Errors of such a player from note to note, cents, of this standard deviation: heavy-tailed, and hanging together. */
export function bonesErrors(source: RandomSource, scatterCents: number): () => number {
  const normal = randomNormal.source(source)(0, 1)
  let hand = normal()
  return () => {
    hand = HAND_STAYS * hand + Math.sqrt(1 - HAND_STAYS ** 2) * normal()
    const squares = Array.from({ length: HEAVY }, () => normal() ** 2)
    // Its variance is HEAVY / (HEAVY − 2).
    const finger = (normal() * Math.sqrt(HEAVY - 2)) / Math.sqrt(sum(squares))
    return scatterCents * (Math.sqrt(HAND_SHARE) * hand + Math.sqrt(1 - HAND_SHARE) * finger)
  }
}
