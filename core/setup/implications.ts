import { familyOf, type FamilyId } from '../instrument'
import type { Finding } from '../verdict'
import type { AnsweredItem, SetupAnswer } from './answers'
import { isSetupItem, SETUP_ITEMS, type SetupItemId } from './items'

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

/**
 * What the readings of a hand tend to show when an item is not as it should be: written once, for the round and the verdict. Setup
 * items and docs/trade.md § 7; common practice, no source. What helps is in `core/practice`.
 */
export const SYMPTOMS: Readonly<Record<SetupItemId, readonly Symptom[]>> = {
  pain: [],
  tension: ['narrow_frame', 'scatter'],
  tuned: ['strings_off', 'hand_sharp', 'hand_flat'],
  size: ['narrow_frame', 'fourth_flat', 'wide_frame'],
  nails: ['scatter', 'wobble'],
  collarbone: ['narrow_frame', 'fourth_flat'],
  chin_rest: ['narrow_frame'],
  shoulder_rest: ['narrow_frame', 'fourth_flat'],
  body_angle: ['lowest_strings_off', 'fourth_flat'],
  level: ['narrow_frame', 'fourth_flat'],
  gap: ['narrow_frame', 'fourth_flat', 'no_ring'],
  squeeze: ['narrow_frame', 'fourth_flat', 'no_ring'],
  thumb_place: ['creeping_sharp', 'hand_sharp'],
  thumb_joints: ['narrow_frame', 'scatter'],
  thumb_height: ['narrow_frame', 'fourth_flat'],
  wrist: ['fourth_flat', 'narrow_frame'],
  palm: ['fourth_flat'],
  knuckles: ['narrow_frame', 'fourth_flat'],
  knuckle_room: ['half_steps_wide'],
  elbow: ['narrow_frame', 'fourth_flat', 'lowest_strings_off'],
  first_side: ['narrow_frame', 'no_ring'],
  fourth_side: ['fourth_flat', 'fourth_late'],
  finger_angle: ['scatter', 'no_ring'],
  tip_first: ['scatter', 'wide_frame'],
  tip_fourth: ['fourth_flat'],
  last_joint: ['wobble'],
  waiting_fingers: ['scatter', 'fourth_late'],
  cello_sitting: ['scatter'],
  cello_endpin: ['scatter'],
  cello_elbow: ['narrow_frame', 'lowest_strings_off'],
  cello_wrist: ['narrow_frame'],
  cello_thumb_place: ['narrow_frame', 'hand_sharp'],
  cello_thumb_joints: ['one_two_wide'],
  cello_thumb_push: ['one_two_wide', 'scatter'],
  cello_fingers: ['wobble', 'scatter'],
  cello_spread: ['narrow_frame', 'wide_frame'],
  cello_lift: ['scatter'],
  cello_extension_back: ['extension_sharp', 'hand_moved_back'],
  cello_extension_forward: ['narrow_frame', 'fourth_flat'],
  bass_endpin: ['scatter'],
  bass_stance: ['scatter', 'hand_sharp'],
  bass_elbow: ['narrow_frame'],
  bass_hand: ['narrow_frame', 'fourth_flat'],
  bass_thumb_place: ['narrow_frame', 'hand_sharp'],
  bass_thumb_joints: ['narrow_frame', 'scatter'],
  bass_fingers: ['wobble', 'fourth_late'],
  bass_third_finger: ['fourth_flat', 'wobble'],
  bass_shift: ['hand_flat', 'scatter'],
  bass_plucking: [],
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
    const own = SYMPTOMS[id]
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
    .filter(({ itemId }) => SYMPTOMS[itemId as SetupItemId]?.includes(symptom))
    .reduce((odds, { answer }) => odds * ODDS[answer], 1)
}
