import { familyOf, type FamilyId } from '../instrument'
import type { Finding } from '../verdict'
import type { AnsweredItem, SetupAnswer } from './answers'
import { isSetupItem, SETUP_ITEMS, type SetupItemId } from './items'
import type { Schools } from './schools'

/** What readings can show: the rows of docs/trade.md § 7 that a setup speaks to. */
export type Symptom =
  | 'hand_sharp'
  | 'hand_flat'
  | 'creeping_sharp'
  | 'narrow_frame'
  | 'wide_frame'
  | 'fourth_flat'
  | 'fourth_late'
  | 'lowest_strings_off'
  | 'half_steps_wide'
  | 'one_two_wide'
  | 'extension_sharp'
  | 'hand_moved_back'
  | 'scatter'
  | 'wobble'
  | 'no_ring'
  | 'strings_off'

/** Exercises of docs/trade.md § 8. */
export type RemedyId =
  | 'shake_out'
  | 'hands_away'
  | 'tap_on_wood'
  | 'thumb_taps'
  | 'thumb_circles'
  | 'thumb_off'
  | 'find_elbow'
  | 'swing_elbow'
  | 'fourth_against_open'
  | 'drop_fourth'
  | 'slow_scale_hover'
  | 'lift_from_rest'
  | 'touch_two_and_three'
  | 'move_arm'
  | 'half_the_pressure'
  | 'lift_extended_first'
  | 'roll_1_2_4'
  | 'silent_slides'
  | 'tune_strings'

interface Implication {
  /** What the readings of such a hand tend to show. */
  readonly symptoms: readonly Symptom[]
  /** What helps, the first first. */
  readonly remedies: readonly RemedyId[]
}

/**
 * What it means when an item is not as it should be: written once, for the round, the verdict and the practice plan. Setup
 * items and docs/trade.md § 7 and § 8; common practice, no source.
 */
export const IMPLICATIONS: Readonly<Record<SetupItemId, Implication>> = {
  pain: { symptoms: [], remedies: [] },
  tension: { symptoms: ['narrow_frame', 'scatter'], remedies: ['shake_out'] },
  tuned: { symptoms: ['strings_off', 'hand_sharp', 'hand_flat'], remedies: ['tune_strings'] },
  size: { symptoms: ['narrow_frame', 'fourth_flat', 'wide_frame'], remedies: [] },
  nails: { symptoms: ['scatter', 'wobble'], remedies: [] },
  collarbone: { symptoms: ['narrow_frame', 'fourth_flat'], remedies: ['hands_away'] },
  chin_rest: { symptoms: ['narrow_frame'], remedies: ['hands_away'] },
  shoulder_rest: { symptoms: ['narrow_frame', 'fourth_flat'], remedies: ['hands_away'] },
  body_angle: { symptoms: ['lowest_strings_off', 'fourth_flat'], remedies: ['find_elbow'] },
  level: { symptoms: ['narrow_frame', 'fourth_flat'], remedies: ['hands_away'] },
  gap: { symptoms: ['narrow_frame', 'fourth_flat', 'no_ring'], remedies: ['thumb_taps', 'thumb_circles'] },
  squeeze: { symptoms: ['narrow_frame', 'fourth_flat', 'no_ring'], remedies: ['thumb_taps', 'thumb_off'] },
  thumb_place: { symptoms: ['creeping_sharp', 'hand_sharp'], remedies: ['thumb_taps', 'silent_slides'] },
  thumb_joints: { symptoms: ['narrow_frame', 'scatter'], remedies: ['thumb_circles', 'thumb_off'] },
  thumb_height: { symptoms: ['narrow_frame', 'fourth_flat'], remedies: ['thumb_circles'] },
  wrist: { symptoms: ['fourth_flat', 'narrow_frame'], remedies: ['silent_slides'] },
  palm: { symptoms: ['fourth_flat'], remedies: ['find_elbow', 'drop_fourth'] },
  knuckles: { symptoms: ['narrow_frame', 'fourth_flat'], remedies: ['tap_on_wood', 'find_elbow'] },
  knuckle_room: { symptoms: ['half_steps_wide'], remedies: ['touch_two_and_three', 'tap_on_wood'] },
  elbow: {
    symptoms: ['narrow_frame', 'fourth_flat', 'lowest_strings_off'],
    remedies: ['find_elbow', 'swing_elbow'],
  },
  first_side: { symptoms: ['narrow_frame', 'no_ring'], remedies: ['silent_slides'] },
  fourth_side: { symptoms: ['fourth_flat', 'fourth_late'], remedies: ['drop_fourth', 'fourth_against_open'] },
  finger_angle: { symptoms: ['scatter', 'no_ring'], remedies: ['tap_on_wood'] },
  tip_first: { symptoms: ['scatter', 'wide_frame'], remedies: ['tap_on_wood'] },
  tip_fourth: { symptoms: ['fourth_flat'], remedies: ['drop_fourth'] },
  last_joint: { symptoms: ['wobble'], remedies: ['half_the_pressure', 'tap_on_wood'] },
  waiting_fingers: { symptoms: ['scatter', 'fourth_late'], remedies: ['slow_scale_hover'] },
  cello_sitting: { symptoms: ['scatter'], remedies: ['shake_out'] },
  cello_endpin: { symptoms: ['scatter'], remedies: [] },
  cello_elbow: { symptoms: ['narrow_frame', 'lowest_strings_off'], remedies: ['move_arm'] },
  cello_wrist: { symptoms: ['narrow_frame'], remedies: ['move_arm'] },
  cello_thumb_place: { symptoms: ['narrow_frame', 'hand_sharp'], remedies: ['thumb_off', 'thumb_taps'] },
  cello_thumb_joints: { symptoms: ['one_two_wide'], remedies: ['thumb_off', 'thumb_taps'] },
  cello_thumb_push: { symptoms: ['one_two_wide', 'scatter'], remedies: ['move_arm', 'thumb_off'] },
  cello_fingers: { symptoms: ['wobble', 'scatter'], remedies: ['tap_on_wood', 'half_the_pressure'] },
  cello_spread: { symptoms: ['narrow_frame', 'wide_frame'], remedies: ['lift_from_rest'] },
  cello_lift: { symptoms: ['scatter'], remedies: ['lift_from_rest'] },
  cello_extension_back: {
    symptoms: ['extension_sharp', 'hand_moved_back'],
    remedies: ['lift_extended_first'],
  },
  cello_extension_forward: { symptoms: ['narrow_frame', 'fourth_flat'], remedies: ['silent_slides'] },
  bass_endpin: { symptoms: ['scatter'], remedies: [] },
  bass_stance: { symptoms: ['scatter', 'hand_sharp'], remedies: [] },
  bass_elbow: { symptoms: ['narrow_frame'], remedies: ['swing_elbow'] },
  bass_hand: { symptoms: ['narrow_frame', 'fourth_flat'], remedies: ['roll_1_2_4'] },
  bass_thumb_place: { symptoms: ['narrow_frame', 'hand_sharp'], remedies: ['thumb_taps'] },
  bass_thumb_joints: { symptoms: ['narrow_frame', 'scatter'], remedies: ['thumb_taps'] },
  bass_fingers: { symptoms: ['wobble', 'fourth_late'], remedies: ['tap_on_wood', 'half_the_pressure'] },
  bass_third_finger: { symptoms: ['fourth_flat', 'wobble'], remedies: ['roll_1_2_4'] },
  bass_shift: { symptoms: ['hand_flat', 'scatter'], remedies: ['silent_slides'] },
  bass_plucking: { symptoms: [], remedies: [] },
}

/** What helps with an item in a school: who lets the hand rest is not sent to hold it over its places. */
export function remediesFor(
  itemId: SetupItemId,
  { waiting_fingers }: Pick<Schools, 'waiting_fingers'>,
): RemedyId[] {
  const remedies = IMPLICATIONS[itemId].remedies.map((remedy) =>
    remedy === 'slow_scale_hover' && waiting_fingers === 'rest' ? 'lift_from_rest' : remedy,
  )
  return [...new Set(remedies)]
}

/** What a kept finding shows, in the same words as the setup. */
export function symptomsOf(finding: Finding, family: FamilyId): Symptom[] {
  const { hold } = familyOf(family)
  switch (finding.code) {
    case 'whole_hand':
      return finding.offsetMm > 0 ? ['hand_sharp', 'creeping_sharp'] : ['hand_flat']
    case 'frame':
      if (finding.errorMm > 0)
        return finding.where === 'first' ? ['wide_frame', 'hand_moved_back'] : ['wide_frame']
      if (finding.where === 'first')
        return hold === 'knees' ? ['extension_sharp', 'narrow_frame'] : ['narrow_frame']
      if (finding.toFinger !== 4) return ['narrow_frame']
      // One finger alone that falls short is looked for at its own side first.
      return finding.where === 'last' ? ['fourth_flat', 'narrow_frame'] : ['narrow_frame', 'fourth_flat']
    case 'finger':
      if (hold === 'knees' && finding.finger === 2 && finding.offsetMm > 0) return ['one_two_wide']
      if (finding.finger === 4) return finding.offsetMm < 0 ? ['fourth_flat'] : ['wide_frame']
      if (hold !== 'knees' && finding.finger === 2 && finding.offsetMm > 0) return ['half_steps_wide']
      return ['scatter']
    case 'steps':
      return ['half_steps_wide']
    case 'locked_thumb':
      return ['one_two_wide']
    case 'elbow':
      return ['lowest_strings_off', 'fourth_flat']
    case 'pinched':
      return ['extension_sharp']
    case 'dragged':
      return ['hand_moved_back']
    case 'creep':
      return finding.offsetMm > 0 ? ['creeping_sharp', 'hand_sharp'] : ['hand_flat']
    case 'scatter':
    case 'ear_repairs':
    case 'without_tapes':
      return ['scatter']
    case 'wobble':
      return ['wobble']
    case 'dull':
      return ['no_ring']
    case 'vibrato':
    case 'place':
    case 'tape':
      return []
    case 'string':
      return ['strings_off']
  }
}

/** A kept verdict, as far as a setup can bear on it. */
interface VerdictLike {
  readonly outcome: string
  readonly findings?: readonly Finding[]
}

/**
 * The items that may be behind a verdict, the likelier first: those that show first of all what the verdict says first, the
 * hand before what carries it; else in the order of asking.
 */
export function itemsBehind(
  verdict: VerdictLike,
  family: FamilyId,
  itemIds: readonly string[],
): SetupItemId[] {
  if (verdict.outcome === 'string_out_of_tune') return itemIds.includes('tuned') ? ['tuned'] : []
  const [finding] = verdict.findings ?? []
  if (!finding) return []
  const symptoms = symptomsOf(finding, family)
  const ranked = itemIds.filter(isSetupItem).flatMap((id) => {
    const own = IMPLICATIONS[id].symptoms
    const ranks = symptoms.flatMap((symptom, said) => {
      const shown = own.indexOf(symptom)
      return shown < 0 ? [] : [2 * said + shown + (SETUP_ITEMS[id].of === 'hand' ? 0 : 2)]
    })
    return ranks.length > 0 ? [{ id, rank: Math.min(...ranks) }] : []
  })
  return ranked.sort((a, b) => a.rank - b.rank).map(({ id }) => id)
}

/** How many times likelier an answer makes what it tends to show. No source: chosen so that one “no” outweighs one “yes”. */
const ODDS: Record<SetupAnswer, number> = { no: 2, nearly: 1.4, yes: 0.8 }

/** How many times likelier (above 1) or less likely a symptom is after these answers than before anybody looked. */
export function oddsOf(
  symptom: Symptom,
  answers: readonly Pick<AnsweredItem, 'itemId' | 'answer'>[],
): number {
  return answers
    .filter(({ itemId }) => IMPLICATIONS[itemId as SetupItemId]?.symptoms.includes(symptom))
    .reduce((odds, { answer }) => odds * ODDS[answer], 1)
}
