import { familyOf, type FamilyId } from '../instrument'
import type { Schools, SetupItemId } from '../setup'
import type { Finding } from '../verdict'
import { isPracticedOn, PRACTICE, type PracticeId } from './exercises'

/** What helps with an item of the setup that is not as it should be, the first first. Common practice, no source. */
const REMEDIES: Readonly<Record<SetupItemId, readonly PracticeId[]>> = {
  pain: [],
  tension: ['shake_out'],
  tuned: ['tune_strings'],
  size: [],
  nails: [],
  collarbone: ['hands_away'],
  chin_rest: ['hands_away'],
  shoulder_rest: ['hands_away'],
  body_angle: ['find_elbow'],
  level: ['hands_away'],
  gap: ['thumb_taps', 'thumb_circles'],
  squeeze: ['thumb_taps', 'thumb_off'],
  thumb_place: ['thumb_taps', 'silent_slides'],
  thumb_joints: ['thumb_circles', 'thumb_off'],
  thumb_height: ['thumb_circles'],
  wrist: ['silent_slides'],
  palm: ['find_elbow', 'drop_fourth'],
  knuckles: ['tap_on_wood', 'find_elbow'],
  knuckle_room: ['touch_two_and_three', 'tap_on_wood'],
  elbow: ['find_elbow', 'swing_elbow'],
  first_side: ['silent_slides'],
  fourth_side: ['drop_fourth', 'fourth_against_open'],
  finger_angle: ['tap_on_wood'],
  tip_first: ['tap_on_wood'],
  tip_fourth: ['drop_fourth'],
  last_joint: ['half_the_pressure', 'tap_on_wood'],
  waiting_fingers: ['slow_scale_hover', 'own_motion'],
  cello_sitting: ['shake_out'],
  cello_endpin: [],
  cello_elbow: ['move_arm'],
  cello_wrist: ['move_arm'],
  cello_thumb_place: ['thumb_off', 'thumb_taps'],
  cello_thumb_joints: ['thumb_off', 'thumb_taps'],
  cello_thumb_push: ['move_arm', 'thumb_off'],
  cello_fingers: ['tap_on_wood', 'half_the_pressure'],
  cello_spread: ['lift_from_rest'],
  cello_lift: ['lift_from_rest'],
  cello_extension_back: ['lift_extended_first'],
  cello_extension_forward: ['silent_slides'],
  bass_endpin: [],
  bass_stance: [],
  bass_elbow: ['swing_elbow'],
  bass_hand: ['roll_the_hand'],
  bass_thumb_place: ['thumb_taps'],
  bass_thumb_joints: ['thumb_taps'],
  bass_fingers: ['tap_on_wood', 'half_the_pressure'],
  bass_third_finger: ['roll_the_hand'],
  bass_shift: ['silent_slides'],
  bass_plucking: [],
}

/** What helps with an item in a school: who lets the hand rest is not sent to hold it over its places. */
export function remediesFor(
  itemId: SetupItemId,
  { waiting_fingers }: Pick<Schools, 'waiting_fingers'>,
): PracticeId[] {
  const remedies = REMEDIES[itemId].map((remedy) =>
    remedy === 'slow_scale_hover' && waiting_fingers === 'rest' ? 'lift_from_rest' : remedy,
  )
  return [...new Set(remedies)]
}

/** What is played where two notes do not meet. */
export const MATCH_EXERCISES: Readonly<Record<'fourth' | 'octave', PracticeId>> = {
  fourth: 'fourth_against_open',
  octave: 'octave_one_four',
}

/** What is tried first for a finding, then what else helps, on an instrument of this family; nothing where a tape is to blame. */
export function exercisesFor(finding: Finding, familyId: FamilyId): PracticeId[] {
  return tried(finding, familyId).filter((id) => isPracticedOn(PRACTICE[id], familyId))
}

function tried(finding: Finding, familyId: FamilyId): readonly PracticeId[] {
  switch (finding.code) {
    case 'whole_hand':
      return finding.offsetMm > 0 ? ['come_home'] : ['open_and_first']
    case 'creep':
      return ['come_home']
    case 'frame':
      if (finding.errorMm > 0) return ['smaller_shape']
      if (finding.where === 'first') return ['lift_first']
      return familyOf(familyId).hold === 'shoulder'
        ? ['find_elbow', 'fourth_against_open']
        : ['silent_pattern']
    case 'finger':
      return ['one_finger']
    case 'steps':
      return ['silent_pattern']
    case 'locked_thumb':
      return ['thumb_off', 'thumb_circles']
    case 'elbow':
      return ['swing_elbow', 'move_arm']
    case 'pinched':
      return ['lift_extended_first']
    case 'dragged':
      return ['two_then_extended_first']
    case 'string':
      return ['tune_strings']
    case 'scatter':
      return ['slow_drops']
    case 'ear_repairs':
      return ['stop_before_repair']
    case 'wobble':
      return ['tap_on_wood']
    case 'dull':
      return familyOf(familyId).hold === 'shoulder' ? ['fourth_against_open'] : ['long_notes']
    case 'vibrato':
      return ['slow_swings']
    case 'without_tapes':
      return ['fade_tape']
    case 'place':
      return ['note_and_neighbour']
    case 'tape':
      return []
  }
}
