import { familiesHeld, FAMILY_IDS, type FamilyId } from '../instrument'
import type { SetupLimits } from './answers'
import type { Schools } from './schools'

const ALL = FAMILY_IDS
const UPPER = familiesHeld('shoulder')
const CELLO = familiesHeld('knees')
const BASS = familiesHeld('standing')

/** What of an item can be read off a ruler or a picture. */
export interface SetupMeasure {
  readonly unit: 'mm' | 'degrees'
  /** Beyond these the value is a slip of the pen. */
  readonly possible: readonly [number, number]
  /**
   * What is right, in the student's school; lengths for a full-size player. Undefined where no value is right for everybody:
   * it is kept, and compared with itself.
   */
  limits?(schools: Schools): SetupLimits
}

interface ItemData {
  readonly families: readonly FamilyId[]
  readonly of: 'player' | 'instrument' | 'hand'
  readonly measure?: SetupMeasure
}

/**
 * What is looked at before a note is judged, in the order in which causes come before what follows from them: pain, tension,
 * the instrument, the hand from the gap to the fingertip. docs/trade.md § 6; order and items are common practice, no source, the
 * ranges of measured values from memory.
 */
export const SETUP_ITEMS = {
  // First the player: nothing is judged while something hurts; tension, an untuned string, a size that does not fit and long
  // nails spoil whatever comes after. docs/trade.md § 1 and § 6.
  pain: { families: ALL, of: 'player' },
  tension: { families: ALL, of: 'player' },
  tuned: { families: ALL, of: 'instrument' },
  size: { families: ALL, of: 'player' },
  nails: { families: ALL, of: 'player' },

  // Then the instrument, from the collarbone outwards: a hand that must hold it up cannot be judged. docs/trade.md § 1.
  collarbone: { families: UPPER, of: 'instrument' },
  chin_rest: { families: UPPER, of: 'instrument' },
  shoulder_rest: { families: UPPER, of: 'instrument' },
  body_angle: {
    families: UPPER,
    of: 'instrument',
    measure: {
      unit: 'degrees',
      possible: [-30, 120],
      limits: () => ({ right: [20, 70], nearly: [10, 80] }),
    },
  },
  level: {
    families: UPPER,
    of: 'instrument',
    measure: {
      unit: 'degrees',
      possible: [-45, 60],
      limits: () => ({ right: [-10, 8], nearly: [-20, 18] }),
    },
  },
  // Then the hand, from the gap to the fingertip: height and thumb make the angle of the fingers, the elbow what they reach, and
  // only then is a fingertip its own. docs/trade.md § 6.
  gap: {
    families: UPPER,
    of: 'hand',
    measure: { unit: 'mm', possible: [0, 40], limits: () => ({ right: [7, 25], nearly: [3, 30] }) },
  },
  squeeze: { families: UPPER, of: 'hand' },
  thumb_place: {
    families: UPPER,
    of: 'hand',
    measure: {
      unit: 'mm',
      possible: [-60, 60],
      limits: ({ thumb_violin: school }) => THUMB_LIMITS[school],
    },
  },
  thumb_joints: { families: UPPER, of: 'hand' },
  thumb_height: {
    families: UPPER,
    of: 'hand',
    measure: { unit: 'mm', possible: [-30, 40], limits: () => ({ right: [-20, 3], nearly: [-25, 10] }) },
  },
  wrist: {
    families: UPPER,
    of: 'hand',
    measure: {
      unit: 'degrees',
      possible: [-60, 90],
      limits: () => ({ right: [-12, 8], nearly: [-20, 18] }),
    },
  },
  palm: { families: UPPER, of: 'hand' },
  knuckles: {
    families: UPPER,
    of: 'hand',
    measure: { unit: 'mm', possible: [-40, 50], limits: () => ({ right: [2, 25], nearly: [-4, 30] }) },
  },
  knuckle_room: { families: UPPER, of: 'hand' },
  elbow: { families: UPPER, of: 'hand' },
  first_side: { families: UPPER, of: 'hand' },
  fourth_side: { families: UPPER, of: 'hand' },
  finger_angle: {
    families: UPPER,
    of: 'hand',
    measure: {
      unit: 'degrees',
      possible: [0, 120],
      limits: ({ fingertip }) =>
        fingertip === 'near_nail'
          ? { right: [60, 82], nearly: [50, 88] }
          : { right: [48, 72], nearly: [38, 82] },
    },
  },
  tip_first: { families: UPPER, of: 'hand' },
  tip_fourth: { families: UPPER, of: 'hand' },
  last_joint: { families: UPPER, of: 'hand' },
  waiting_fingers: { families: UPPER, of: 'hand' },

  // From the chair to the fingertip: back and endpin carry the arm, the arm the wrist, the thumb the spread; extensions last,
  // since they are turns of a hand that stands. docs/trade.md § 6.
  cello_sitting: { families: CELLO, of: 'player' },
  cello_endpin: {
    families: CELLO,
    of: 'instrument',
    measure: { unit: 'mm', possible: [0, 700] },
  },
  cello_elbow: { families: CELLO, of: 'hand' },
  cello_wrist: {
    families: CELLO,
    of: 'hand',
    measure: {
      unit: 'degrees',
      possible: [-60, 90],
      limits: () => ({ right: [-10, 10], nearly: [-20, 20] }),
    },
  },
  cello_thumb_place: {
    families: CELLO,
    of: 'hand',
    measure: {
      unit: 'mm',
      possible: [-80, 120],
      limits: ({ thumb_cello: school }) => CELLO_THUMB_LIMITS[school],
    },
  },
  cello_thumb_joints: { families: CELLO, of: 'hand' },
  cello_thumb_push: { families: CELLO, of: 'hand' },
  cello_fingers: { families: CELLO, of: 'hand' },
  cello_spread: { families: CELLO, of: 'hand' },
  cello_lift: { families: CELLO, of: 'hand' },
  cello_extension_back: { families: CELLO, of: 'hand' },
  cello_extension_forward: { families: CELLO, of: 'hand' },

  // From the floor to the fingertip: who holds the bass up by the hand cannot move it, a turned hand has no frame, and the thumb
  // makes the arch. docs/trade.md § 1 and § 6.
  bass_endpin: { families: BASS, of: 'instrument', measure: { unit: 'mm', possible: [0, 600] } },
  bass_stance: { families: BASS, of: 'instrument' },
  bass_elbow: { families: BASS, of: 'hand' },
  bass_hand: {
    families: BASS,
    of: 'hand',
    measure: {
      unit: 'degrees',
      possible: [-60, 90],
      limits: () => ({ right: [-10, 12], nearly: [-20, 22] }),
    },
  },
  bass_thumb_place: { families: BASS, of: 'hand' },
  bass_thumb_joints: { families: BASS, of: 'hand' },
  bass_fingers: { families: BASS, of: 'hand' },
  bass_third_finger: { families: BASS, of: 'hand' },
  bass_shift: { families: BASS, of: 'hand' },
  bass_plucking: { families: BASS, of: 'hand' },
} as const satisfies Record<string, ItemData>

export type SetupItemId = keyof typeof SETUP_ITEMS

/** mm that the thumb lies behind the first finger, towards the nut, at full size; never as far forward as 3. From memory. */
const THUMB_LIMITS: Record<Schools['thumb_violin'], SetupLimits> = {
  opposite_1: { right: [-8, 12], nearly: [-16, 25] },
  behind_1: { right: [15, 33], nearly: [5, 40] },
  opposite_2: { right: [-35, -12], nearly: [-40, -4] },
}

/** mm that the thumb lies in front of the first finger, towards the bridge, at full size. From memory. */
const CELLO_THUMB_LIMITS: Record<Schools['thumb_cello'], SetupLimits> = {
  behind_2: { right: [24, 46], nearly: [12, 56] },
  between_1_and_2: { right: [8, 34], nearly: [0, 46] },
}

export const SETUP_ITEM_IDS = Object.keys(SETUP_ITEMS) as SetupItemId[]

export function isSetupItem(id: string): id is SetupItemId {
  return id in SETUP_ITEMS
}

export function setupMeasureOf(id: string): SetupMeasure | undefined {
  return isSetupItem(id) ? (SETUP_ITEMS[id] as ItemData).measure : undefined
}

/**
 * The ranges of an item's measured value in a school, for an instrument of `scale` of the full size's string length: lengths
 * shrink with the player, angles stay.
 */
export function setupLimits(id: string, schools: Schools, scale = 1): SetupLimits | undefined {
  const measure = setupMeasureOf(id)
  const limits = measure?.limits?.(schools)
  if (!measure || !limits || measure.unit === 'degrees') return limits
  const scaled = ([least, most]: readonly [number, number]) => [least * scale, most * scale] as const
  return { right: scaled(limits.right), nearly: scaled(limits.nearly) }
}
