import { isSetupItem, type SetupAnswer, type SetupItemId } from '#core'

/** What each item is called where room is short. */
const NAMES: Record<SetupItemId, string> = {
  pain: 'pain',
  tension: 'tension',
  tuned: 'open strings',
  size: 'size',
  nails: 'nails',
  collarbone: 'collarbone',
  chin_rest: 'chin rest',
  shoulder_rest: 'shoulder rest',
  body_angle: 'angle to the body',
  level: 'level of the strings',
  gap: 'gap under the neck',
  squeeze: 'squeeze',
  thumb_place: 'thumb’s place',
  thumb_joints: 'thumb’s joints',
  thumb_height: 'thumb’s height',
  wrist: 'wrist',
  palm: 'palm side',
  knuckles: 'base knuckles',
  knuckle_room: 'room between the knuckles',
  elbow: 'elbow',
  first_side: 'hand to neck, 1’s side',
  fourth_side: 'hand to neck, 4’s side',
  finger_angle: 'finger angle',
  tip_first: 'fingertip of 1',
  tip_fourth: 'fingertip of 4',
  last_joint: 'last joint',
  waiting_fingers: 'fingers not playing',
  cello_sitting: 'sitting',
  cello_endpin: 'endpin and pegs',
  cello_elbow: 'elbow and forearm',
  cello_wrist: 'wrist',
  cello_thumb_place: 'thumb’s place',
  cello_thumb_joints: 'thumb’s joints',
  cello_thumb_push: 'thumb’s push',
  cello_fingers: 'fingers',
  cello_spread: 'spread',
  cello_lift: 'lift',
  cello_extension_back: 'extension back',
  cello_extension_forward: 'extension forward',
  bass_endpin: 'endpin',
  bass_stance: 'stance or stool',
  bass_elbow: 'elbow',
  bass_hand: 'hand square to the neck',
  bass_thumb_place: 'thumb’s place',
  bass_thumb_joints: 'thumb’s joints',
  bass_fingers: 'fingers',
  bass_third_finger: 'third finger',
  bass_shift: 'shift',
  bass_plucking: 'plucking',
}

/** `gap under the neck`; an item of the studio’s own by its question as it was worded that day. */
export function setupName(itemId: string, question?: string | null): string {
  return isSetupItem(itemId) ? NAMES[itemId] : (question ?? 'an item that is no longer asked')
}

const ANSWERS = { yes: 'right', nearly: 'nearly', no: 'not yet' } as const
/** Where the name alone would say the contrary: “pain: no” of a hand that hurts. */
const OWN_ANSWERS: Partial<Record<SetupItemId, Partial<Record<SetupAnswer, string>>>> = {
  pain: { yes: 'nothing hurts', no: 'hurts' },
  tension: { yes: 'free', nearly: 'nearly free', no: 'tense' },
  squeeze: { yes: 'free', nearly: 'nearly free', no: 'squeezing' },
  tuned: { yes: 'in tune', nearly: 'nearly in tune', no: 'out of tune' },
  size: { yes: 'fits', nearly: 'nearly fits', no: 'does not fit' },
  nails: { yes: 'short enough', nearly: 'nearly short enough', no: 'too long' },
}

/** What was answered, in the item’s own words: `hurts`, `squeezing`, `not yet`. */
export function answerName(itemId: string, answer: SetupAnswer): string {
  return (isSetupItem(itemId) ? OWN_ANSWERS[itemId]?.[answer] : undefined) ?? ANSWERS[answer]
}
