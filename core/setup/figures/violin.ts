import {
  aboveFigure,
  fingerNote,
  gapNote,
  knuckleNote,
  levelNote,
  rowNote,
  sectionNote,
  shoulderNote,
  thumbNote,
  thumbTipNote,
  tipAngleNote,
  tipFigure,
  type FigureWord,
} from '../../figure'
import {
  section,
  plan,
  arm,
  shoulder,
  says,
  THUMB_AT,
  onShoulder,
  type Draw,
  type FigureAsked,
} from './poses'

export const VIOLIN_DRAWINGS = {
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
} satisfies Record<string, Draw>

function thumbSays(thumbMm: number, { side }: FigureAsked): FigureWord {
  if (side === 'wrong' && thumbMm > 40) return 'at_third'
  if (thumbMm > 10) return 'in_front_of_1'
  return thumbMm < -10 ? 'behind_1' : 'opposite_1'
}
