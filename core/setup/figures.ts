import {
  aboveFigure,
  ARM,
  armFigure,
  BASSIST,
  CELLIST,
  elbowNote,
  endpinNote,
  fingerNote,
  gapNote,
  knuckleNote,
  leanNote,
  label,
  levelNote,
  nailFigure,
  pegNote,
  PLAN,
  planFigure,
  playerFigure,
  playerJoints,
  pluckFigure,
  rowNote,
  SECTION,
  sectionFigure,
  sectionNote,
  SHOULDER,
  shoulderFigure,
  shoulderJoints,
  shoulderNote,
  spot,
  stringsFigure,
  thumbNote,
  thumbTipNote,
  tipAngleNote,
  tipFigure,
  wristNote,
  type ArmPose,
  type Figure,
  type FigurePart,
  type PlanPose,
  type PlayerPose,
  type SectionPose,
  type ShoulderPose,
} from '../figure'
import type { FamilyId } from '../instrument'
import { answerOf } from './answers'
import { setupLimits, type SetupItemId } from './items'
import type { Schools } from './schools'

/** As it should be, the usual wrong, or as somebody measured it. */
export type FigureSide = 'right' | 'wrong'

export interface FigureAsked {
  readonly side: FigureSide
  readonly schools: Schools
  readonly family: FamilyId
  /** The item’s own measured value, which takes the place of the side’s. */
  readonly measured?: number | undefined
  /** The hand’s size for its instrument: 1 where its comfortable span is the frame’s width. */
  readonly hand?: number | undefined
}

type Draw = (asked: FigureAsked) => Figure

type SectionFamily = 'upper' | 'cello' | 'bass'
const familyOf = (family: FamilyId): SectionFamily =>
  family === 'violin' || family === 'viola' ? 'upper' : family

function section(
  right: Partial<SectionPose>,
  wrong: Partial<SectionPose>,
  note: (pose: SectionPose, asked: FigureAsked) => FigurePart[],
  measured?: keyof SectionPose,
): Draw {
  return (asked) => {
    const pose: SectionPose = {
      ...SECTION,
      ...(asked.side === 'right' ? right : wrong),
      ...(measured && asked.measured !== undefined ? { [measured]: asked.measured } : {}),
    }
    return sectionFigure(pose, familyOf(asked.family), asked.hand, note(pose, asked))
  }
}

type PlanNote = (pose: PlanPose, family: SectionFamily, asked: FigureAsked) => FigurePart[]
type Poses<Pose> = Partial<Pose> | ((schools: Schools) => Partial<Pose>)
const posed = <Pose>(poses: Poses<Pose>, schools: Schools) =>
  typeof poses === 'function' ? poses(schools) : poses

function plan(
  right: Poses<PlanPose>,
  wrong: Poses<PlanPose>,
  note: PlanNote,
  measured?: (value: number, family: SectionFamily) => Partial<PlanPose>,
): Draw {
  return (asked) => {
    const { side, schools, measured: value } = asked
    const family = familyOf(asked.family)
    const pose: PlanPose = {
      ...PLAN,
      ...BEHIND[family],
      ...posed(side === 'right' ? right : wrong, schools),
      ...(measured && value !== undefined ? measured(value, family) : {}),
    }
    return planFigure(pose, family, asked.hand, note(pose, family, asked))
  }
}
/** Where the thumb of a hand stands on its instrument. */
const BEHIND: Record<SectionFamily, Partial<PlanPose>> = {
  upper: {},
  cello: { thumbOutMm: -20, thumbMm: 35, string: 2 },
  bass: { thumbOutMm: -26, thumbMm: 24, string: 2, fingers: { 1: 'down', 2: 'down', 4: 'down' } },
}

function arm(
  right: Partial<ArmPose>,
  wrong: Partial<ArmPose>,
  says: (asked: FigureAsked) => string,
  measured?: keyof ArmPose,
): Draw {
  return (asked) => {
    const hold = familyOf(asked.family) === 'upper' ? 'under_chin' : 'upright'
    const pose: ArmPose = {
      ...ARM,
      hold,
      ...(asked.side === 'right' ? right : wrong),
      ...(measured && asked.measured !== undefined ? { [measured]: asked.measured } : {}),
    }
    return armFigure(pose, asked.hand, wristNote(pose, says(asked), asked.hand))
  }
}

function shoulder(
  right: Partial<ShoulderPose>,
  wrong: Partial<ShoulderPose>,
  note: (pose: ShoulderPose, asked: FigureAsked) => FigurePart[],
  measured?: keyof ShoulderPose,
): Draw {
  return (asked) => {
    const pose: ShoulderPose = {
      ...SHOULDER,
      ...(asked.side === 'right' ? right : wrong),
      ...(measured && asked.measured !== undefined ? { [measured]: asked.measured } : {}),
    }
    return shoulderFigure(pose, 1, note(pose, asked))
  }
}

function player(
  plays: 'cello' | 'bass',
  right: Partial<PlayerPose>,
  wrong: Partial<PlayerPose>,
  note: (pose: PlayerPose, asked: FigureAsked) => FigurePart[],
  measured?: keyof PlayerPose,
): Draw {
  return (asked) => {
    const pose: PlayerPose = {
      ...(plays === 'cello' ? CELLIST : BASSIST),
      ...(asked.side === 'right' ? right : wrong),
      ...(measured && asked.measured !== undefined ? { [measured]: asked.measured } : {}),
    }
    return playerFigure(pose, 1, 1, note(pose, asked))
  }
}

/** Says one thing of the right side and another of the wrong. */
const says =
  (right: string, wrong: string) =>
  ({ side }: Pick<FigureAsked, 'side'>) =>
    side === 'right' ? right : wrong

const THUMB_AT: Record<Schools['thumb_violin'], number> = { opposite_1: 0, behind_1: -25, opposite_2: 26 }
const CELLO_THUMB_AT: Record<Schools['thumb_cello'], number> = { behind_2: 36, between_1_and_2: 19 }
const BASS_THUMB_AT: Record<Schools['thumb_bass'], number> = { behind_1: 0, behind_2: 52 }

const onShoulder = (pose: ShoulderPose) => shoulderJoints(pose)

/** A body that hurts, or does not, on whatever it plays. */
const whole =
  (right: Partial<ShoulderPose>, wrong: Partial<ShoulderPose>, words: (asked: FigureAsked) => string): Draw =>
  (asked) =>
    shoulder(right, wrong, (pose) => shoulderNote(onShoulder(pose).shoulder, words(asked), 40))(asked)

/** Of what every family is asked: a violinist from the front, a cellist or a bassist from the side. */
const forEach =
  (upper: Draw, seated: (plays: 'cello' | 'bass') => Draw): Draw =>
  (asked) =>
    asked.family === 'cello' || asked.family === 'bass' ? seated(asked.family)(asked) : upper(asked)

/** One drawing an item: the same figure with other angles for right, the usual wrong, and what was measured. */
const DRAWINGS: Readonly<Record<SetupItemId, Draw>> = {
  pain: forEach(
    shoulder({}, { aches: true, hunch: 16, head: 16 }, (_, asked) => [
      label(says('nothing_hurts', 'stop')(asked)),
    ]),
    (plays) =>
      player(plays, {}, { slump: 12 }, (pose, asked) => {
        const { shoulder: front, hand, elbow } = playerJoints(pose)
        const aches = asked.side === 'wrong' ? [front, hand, elbow].map((place) => spot(place, 62)) : []
        return [...aches, label(says('nothing_hurts', 'stop')(asked))]
      }),
  ),
  tension: forEach(
    whole({ hunch: 0, head: 6 }, { hunch: 46, head: 24 }, says('shoulder_hangs', 'shoulder_up')),
    (plays) =>
      player(plays, {}, { slump: 15, drop: -28 }, (pose, asked) => [
        spot(playerJoints(pose).shoulder, 80),
        label(says('shoulder_hangs', 'shoulder_up')(asked)),
      ]),
  ),
  tuned: ({ side }) => (side === 'right' ? stringsFigure(undefined, 'in_tune') : stringsFigure(2, 'slipped')),
  size: forEach(
    (asked) => {
      const instrument = asked.side === 'right' ? 0.86 : 1.02
      const pose: ShoulderPose = { ...SHOULDER, head: 6 }
      const { elbow } = shoulderJoints(pose, instrument)
      return shoulderFigure(
        pose,
        instrument,
        shoulderNote(elbow, says('softly_bent', 'straight_arm')(asked), 42),
      )
    },
    (plays) => (asked) => {
      const pose = plays === 'cello' ? CELLIST : BASSIST
      const child = asked.side === 'right' ? 1 : 0.78
      return playerFigure(pose, child, 1, [
        spot(playerJoints(pose, child).hand, 70),
        label(says('softly_bent', 'straight_arm')(asked)),
      ])
    },
  ),
  nails: ({ side }) => (side === 'right' ? nailFigure(0, 'tip_first') : nailFigure(6.5, 'nail_first')),
  collarbone: shoulder({ gapMm: 2 }, { gapMm: 62 }, (pose, asked) =>
    shoulderNote(
      { x: onShoulder(pose).button.x - pose.gapMm * 0.4, y: 8 },
      says('close', 'gap_at_neck')(asked),
    ),
  ),
  chin_rest: shoulder({ chinMm: 24, head: 7 }, { chinMm: 58, head: 26 }, (pose, asked) =>
    shoulderNote(
      { x: onShoulder(pose).button.x + 42, y: -pose.chinMm + 6 },
      says('flat_rest', 'ridge')(asked),
    ),
  ),
  shoulder_rest: shoulder(
    { restMm: 14, hand: 'on_other_shoulder' },
    { restMm: 120, droop: 16, hand: 'on_other_shoulder' },
    (pose, asked) =>
      shoulderNote(
        { x: onShoulder(pose).button.x + pose.restMm + 50, y: 52 + pose.droop * 2 },
        says('stays', 'slides_off')(asked),
        40,
      ),
  ),
  body_angle: (asked) =>
    aboveFigure(asked.measured ?? (asked.side === 'right' ? 48 : -6), says('to_the_left', 'in_front')(asked)),
  level: shoulder(
    { droop: 0 },
    { droop: 22 },
    (pose, asked) => levelNote(pose, says('level', 'hangs')(asked)),
    'droop',
  ),
  gap: section(
    {},
    { gapMm: 0, knuckleMm: -13, thumbTipMm: 13, fingerAngle: 30, reachMm: 15 },
    (pose, asked) => gapNote(pose, says('open_gap', 'no_gap')(asked)),
    'gapMm',
  ),
  squeeze: section(
    { reachMm: 20 },
    { reachMm: 10.5, gapMm: 5, thumbBend: -12, knuckleMm: 2, fingerAngle: 78 },
    (pose, asked) => sectionNote(pose, 'base', says('air_beside', 'vice')(asked), 'upper', asked.hand),
  ),
  thumb_place: plan(
    ({ thumb_violin }) => ({ thumbMm: THUMB_AT[thumb_violin] }),
    { thumbMm: 49 },
    (pose, family, asked) => thumbNote(pose, family, thumbSays(pose.thumbMm, asked)),
    (value) => ({ thumbMm: -value }),
  ),
  thumb_joints: section({ thumbBend: 14 }, { thumbBend: -34, gapMm: 8 }, (pose, asked) =>
    sectionNote(pose, 'thumb', says('soft_joint', 'locked_joint')(asked), 'upper', asked.hand),
  ),
  thumb_height: section(
    { thumbTipMm: -2 },
    { thumbTipMm: 24, knuckleMm: -2, fingerAngle: 46 },
    (pose, asked) => thumbTipNote(pose, says('at_the_edge', 'sticks_up')(asked)),
    'thumbTipMm',
  ),
  wrist: arm({ wrist: 0 }, { wrist: 46 }, says('in_line', 'folded'), 'wrist'),
  palm: plan({ turn: 4 }, { turn: 20, awayMm: 34 }, (pose, family, asked) =>
    rowNote(pose, family, says('faces_board', 'turned_out')(asked), asked.hand),
  ),
  knuckles: section(
    {},
    { knuckleMm: -14, fingerAngle: 26, reachMm: 17, gapMm: 9 },
    (pose, asked) => knuckleNote(pose, says('above_board', 'below_board')(asked)),
    'knuckleMm',
  ),
  knuckle_room: section(
    { fingers: 'two_apart', knuckleMm: 8 },
    { fingers: 'two_stuck', knuckleMm: 8 },
    (pose, asked) => sectionNote(pose, 'knuckle', says('room', 'squashed')(asked), 'upper', asked.hand),
  ),
  elbow: section(
    { elbow: 26, string: 0 },
    { elbow: -14, string: 0, fingerAngle: 34, reachMm: 30, knuckleMm: 4 },
    (pose, asked) =>
      sectionNote(pose, 'elbow', says('comes_under', 'stays_outside')(asked), 'upper', asked.hand),
  ),
  first_side: section({ reachMm: 20 }, { reachMm: 11, knuckleMm: 1, gapMm: 9 }, (pose, asked) =>
    sectionNote(pose, 'base', says('slides_free', 'jammed')(asked), 'upper', asked.hand),
  ),
  fourth_side: plan(
    ({ fourth_finger }) => ({
      turn: fourth_finger === 'long' ? 8 : 2,
      fingers: { 1: 'down', 2: 'hovers', 3: 'hovers', 4: 'down' },
    }),
    {
      turn: 16,
      awayMm: 42,
      shift: { 4: -9 },
      ghost: true,
      fingers: { 1: 'down', 2: 'hovers', 3: 'hovers', 4: 'down' },
    },
    (pose, family, asked) =>
      fingerNote(pose, family, [4], says('falls_down', 'stretched')(asked), asked.hand),
  ),
  finger_angle: (asked) =>
    section(
      { fingerAngle: asked.schools.fingertip === 'near_nail' ? 74 : 60 },
      { fingerAngle: 24, reachMm: 33, knuckleMm: 2, string: 0 },
      (pose) => tipAngleNote(pose, says('between', 'flat')(asked)),
      'fingerAngle',
    )(asked),
  tip_first: ({ side }) =>
    side === 'right'
      ? tipFigure({ groove: -4.6, finger: 1 }, 'inner_corner')
      : tipFigure({ groove: 0.4, finger: 1 }, 'middle_of_pad'),
  tip_fourth: ({ side }) =>
    side === 'right'
      ? tipFigure({ groove: 3.4, finger: 4 }, 'where_built')
      : tipFigure({ groove: -5, finger: 4 }, 'forced_in'),
  last_joint: section({}, { collapse: 48, reachMm: 33, knuckleMm: 10 }, (pose, asked) =>
    sectionNote(pose, 'last', says('rounded', 'given_way')(asked), 'upper', asked.hand),
  ),
  waiting_fingers: plan(
    ({ waiting_fingers: school }) =>
      school === 'hover'
        ? { fingers: { 1: 'down', 2: 'hovers', 3: 'hovers', 4: 'hovers' } }
        : { fingers: { 1: 'rests', 2: 'down', 3: 'rests', 4: 'rests' } },
    { fingers: { 1: 'down', 2: 'down', 3: 'down', 4: 'curls' } },
    (pose, family, asked) =>
      fingerNote(
        pose,
        family,
        asked.side === 'wrong' ? [4] : [],
        says(asked.schools.waiting_fingers === 'hover' ? 'low_above' : 'at_rest', 'curls_up')(asked),
      ),
  ),

  cello_sitting: player('cello', {}, { slump: 22, lean: 34 }, (pose, asked) => [
    ...leanNote(pose, says('tall', 'slumped')(asked)),
  ]),
  cello_endpin: player(
    'cello',
    {},
    { endpinMm: 170, slump: 10 },
    (pose, asked) => [
      // Of a measured one only its own number is known.
      ...(asked.measured === undefined ? pegNote(pose, says('beside_head', 'too_low')(asked)) : []),
      ...endpinNote(pose, 'endpin'),
    ],
    'endpinMm',
  ),
  cello_elbow: player('cello', {}, { drop: 55 }, (pose, asked) =>
    elbowNote(pose, says('carries', 'dropped')(asked)),
  ),
  cello_wrist: arm({ wrist: 0 }, { wrist: 38 }, says('in_line', 'folded'), 'wrist'),
  cello_thumb_place: plan(
    ({ thumb_cello }) => ({ thumbMm: CELLO_THUMB_AT[thumb_cello] }),
    { thumbMm: -38, thumbOutMm: 4 },
    (pose, family, asked) => thumbNote(pose, family, says('behind_the_neck', 'out_to_the_side')(asked)),
    (value) => ({ thumbMm: value }),
  ),
  cello_thumb_joints: section({ thumbBend: 16 }, { thumbBend: -30 }, (pose, asked) =>
    sectionNote(pose, 'thumb', says('soft_joint', 'locked_joint')(asked), 'cello', asked.hand),
  ),
  cello_thumb_push: section(
    { thumbTipMm: 0 },
    { thumbTipMm: 5, thumbBend: -8, fingerAngle: 88 },
    (pose, asked) => sectionNote(pose, 'thumbTip', says('rests_there', 'pushes')(asked), 'cello', asked.hand),
  ),
  cello_fingers: section({ fingerAngle: 58 }, { fingerAngle: 24, reachMm: 33, knuckleMm: 2 }, (pose, asked) =>
    tipAngleNote(pose, says('rounded', 'flat')(asked), 'cello'),
  ),
  cello_spread: plan(
    ({ waiting_fingers }) =>
      waiting_fingers === 'hover'
        ? { fingers: { 1: 'down', 2: 'down', 3: 'down', 4: 'down' } }
        : { fingers: { 1: 'rests', 2: 'down', 3: 'rests', 4: 'rests' } },
    { knuckleMm: 33, awayMm: 22, shift: { 1: -10, 4: 12 }, ghost: true },
    (pose, family, asked) =>
      fingerNote(
        pose,
        family,
        [],
        says(
          asked.schools.waiting_fingers === 'hover' ? 'finger_a_semitone' : 'each_in_turn',
          'held_open',
        )(asked),
      ),
  ),
  cello_lift: plan(
    { fingers: { 1: 'down', 2: 'rests', 3: 'rests', 4: 'rests' } },
    { fingers: { 1: 'down', 2: 'flies', 3: 'flies', 4: 'flies' } },
    (pose, family, asked) => fingerNote(pose, family, [], says('from_rest', 'held_high')(asked), asked.hand),
  ),
  cello_extension_back: plan(
    { shift: { 1: -37 }, ghost: false },
    { shift: { 1: -16, 2: -16, 3: -16, 4: -16 }, ghost: true },
    (pose, family, asked) =>
      fingerNote(pose, family, [1], says('drops_back', 'hand_follows')(asked), asked.hand),
  ),
  cello_extension_forward: plan(
    { shift: { 2: 33, 3: 31, 4: 29 }, thumbMm: 67 },
    { shift: { 2: 33, 3: 31, 4: 29 }, thumbMm: 18 },
    (pose, family, asked) => thumbNote(pose, family, says('thumb_came_along', 'thumb_left')(asked)),
  ),

  bass_endpin: player(
    'bass',
    {},
    { endpinMm: 20 },
    (pose, asked) => [
      // Of a measured one only its own number is known.
      ...(asked.measured === undefined ? pegNote(pose, says('beside_ear', 'too_low')(asked)) : []),
      ...endpinNote(pose, 'endpin'),
    ],
    'endpinMm',
  ),
  bass_stance: player('bass', { handAway: true }, { lean: 2 }, (pose, asked) =>
    leanNote(pose, says('leans_on_body', 'held_upright')(asked)),
  ),
  bass_elbow: player('bass', {}, { drop: 70 }, (pose, asked) =>
    elbowNote(pose, says('off_the_body', 'dropped')(asked)),
  ),
  bass_hand: plan(
    { turn: 2 },
    { turn: 24, awayMm: 36 },
    (pose, family, asked) => rowNote(pose, family, says('square', 'turned')(asked), asked.hand),
    (value) => ({ turn: value }),
  ),
  bass_thumb_place: plan(
    ({ thumb_bass }) => ({ thumbMm: BASS_THUMB_AT[thumb_bass] }),
    { thumbMm: 20, thumbOutMm: 8 },
    (pose, family, asked) => thumbNote(pose, family, says('middle_of_neck', 'round_the_side')(asked)),
  ),
  bass_thumb_joints: section({ thumbBend: 16 }, { thumbBend: -30 }, (pose, asked) =>
    sectionNote(pose, 'thumb', says('soft_joint', 'locked_joint')(asked), 'bass', asked.hand),
  ),
  bass_fingers: section({ fingerAngle: 58 }, { collapse: 44, reachMm: 33, knuckleMm: 10 }, (pose, asked) =>
    sectionNote(pose, 'last', says('arched', 'given_way')(asked), 'bass', asked.hand),
  ),
  bass_third_finger: plan(
    ({ bass_fingering }) =>
      bass_fingering === 'one_two_four'
        ? { fingers: { 1: 'down', 2: 'down', 3: 'down', 4: 'down' } }
        : { fingers: { 1: 'down', 2: 'down', 3: 'down', 4: 'down' }, shift: { 2: -2, 3: 28, 4: 48 } },
    { fingers: { 1: 'down', 2: 'down', 3: 'flies', 4: 'down' } },
    (pose, family, asked) =>
      fingerNote(
        pose,
        family,
        [3],
        says(
          asked.schools.bass_fingering === 'one_two_four' ? 'helps_fourth' : 'own_semitone',
          'left_out',
        )(asked),
      ),
  ),
  bass_shift: plan({ handMm: 90, thumbMm: 114 }, { handMm: 90, thumbMm: 24 }, (pose, family, asked) =>
    thumbNote({ ...pose, thumbMm: pose.thumbMm }, family, says('thumb_came_along', 'thumb_left')(asked)),
  ),
  bass_plucking: ({ side }) =>
    side === 'right' ? pluckFigure(true, 'above_end') : pluckFigure(false, 'in_the_air'),
}

function thumbSays(thumbMm: number, { side }: FigureAsked): string {
  if (side === 'wrong' && thumbMm > 40) return 'at_third'
  if (thumbMm > 10) return 'in_front_of_1'
  return thumbMm < -10 ? 'behind_1' : 'opposite_1'
}

/** Smaller or larger hands are drawn as these: they stay in the picture. */
const SMALLEST_HAND = 0.78
const LARGEST_HAND = 1.15

/** The drawing of an item in a school: as it should be, as it usually goes wrong, or with what was measured. */
export function setupFigure(itemId: SetupItemId, asked: FigureAsked): Figure {
  const hand = Math.min(LARGEST_HAND, Math.max(SMALLEST_HAND, asked.hand ?? 1))
  return DRAWINGS[itemId]({ ...asked, hand, side: sideOf(itemId, asked) })
}

/** What was measured is drawn on the hand that it fits: as it should be, unless the number says that it is not. */
function sideOf(itemId: SetupItemId, { side, schools, measured }: FigureAsked): FigureSide {
  if (measured === undefined) return side
  const limits = setupLimits(itemId, schools)
  return limits && answerOf(measured, limits) === 'no' ? 'wrong' : 'right'
}
