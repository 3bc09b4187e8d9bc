import {
  aboveFigure,
  elbowUnderNote,
  fingerNote,
  gapNote,
  knuckleNote,
  levelNote,
  pressNote,
  rowNote,
  sectionNote,
  shoulderNote,
  slideNote,
  thumbNote,
  thumbTipNote,
  tipAngleNote,
  tipFigure,
  type FigureWord,
} from '../../figure'
import { section, plan, arm, shoulder, says, THUMB_AT, type Draw, type FigureAsked } from './poses'

export const VIOLIN_DRAWINGS = {
  collarbone: shoulder(
    { gapMm: 2 },
    { gapMm: 58 },
    (pose, asked) => shoulderNote({ x: 56 + pose.gapMm * 0.4, y: 4 }, says('close', 'gap_at_neck')(asked)),
    { about: [90, -40, 480] },
  ),
  chin_rest: shoulder(
    { chinMm: 24, head: 7 },
    { chinMm: 58, head: 26 },
    (pose, asked) => shoulderNote({ x: 94, y: -pose.chinMm + 6 }, says('flat_rest', 'ridge')(asked)),
    { about: [90, -50, 480] },
  ),
  shoulder_rest: shoulder(
    { restMm: 14, hand: 'on_other_shoulder' },
    { restMm: 120, droop: 16, hand: 'on_other_shoulder' },
    (pose, asked) =>
      shoulderNote({ x: 104 + pose.restMm, y: 52 + pose.droop * 2 }, says('stays', 'slides_off')(asked), 34),
    { about: [150, 0, 620] },
  ),
  body_angle: (asked) =>
    aboveFigure(asked.measured ?? (asked.side === 'right' ? 48 : -6), says('to_the_left', 'in_front')(asked)),
  level: shoulder(
    { droop: 0 },
    { droop: 22 },
    (pose, asked) => levelNote(pose, says('level', 'hangs')(asked)),
    {
      measured: 'droop',
    },
  ),
  gap: section(
    {},
    { gapMm: 0, knuckleMm: -13, thumbTipMm: 13, fingerAngle: 30, reachMm: 15 },
    (pose, asked) => gapNote(pose, says('open_gap', 'no_gap')(asked)),
    { measured: 'gapMm' },
  ),
  squeeze: section(
    { reachMm: 20 },
    { reachMm: 10.5, gapMm: 6, thumbBend: -6, knuckleMm: 4, fingerAngle: 74 },
    (pose, asked) => pressNote(pose, asked.side === 'wrong', says('air_beside', 'vice')(asked)),
  ),
  thumb_place: plan(
    ({ thumb_violin }) => ({ thumbMm: THUMB_AT[thumb_violin] }),
    { thumbMm: 49 },
    (pose, family, asked) => thumbNote(pose, family, thumbSays(pose.thumbMm, asked)),
    (value) => ({ thumbMm: -value }),
  ),
  thumb_joints: section(
    { thumbBend: 24 },
    { thumbBend: -30 },
    (pose, asked) =>
      sectionNote(pose, 'thumb', says('soft_joint', 'locked_joint')(asked), 'shoulder', asked.hand),
    { close: ['thumb', 124] },
  ),
  thumb_height: section(
    { thumbTipMm: -2 },
    { thumbTipMm: 24, knuckleMm: -2, fingerAngle: 46 },
    (pose, asked) => thumbTipNote(pose, says('at_the_edge', 'sticks_up')(asked)),
    { measured: 'thumbTipMm' },
  ),
  wrist: arm({ wrist: 0 }, { wrist: 46 }, says('in_line', 'folded'), 'wrist'),
  palm: plan({ turn: 4 }, { turn: 20, awayMm: 34 }, (pose, family, asked) =>
    rowNote(pose, family, says('faces_board', 'turned_out')(asked), asked.hand),
  ),
  knuckles: section(
    {},
    { knuckleMm: -14, fingerAngle: 26, reachMm: 17, gapMm: 9 },
    (pose, asked) => knuckleNote(pose, says('above_board', 'below_board')(asked)),
    { measured: 'knuckleMm' },
  ),
  knuckle_room: section(
    { fingers: 'two_apart', knuckleMm: 8 },
    { fingers: 'two_stuck', knuckleMm: 8 },
    (pose, asked) => sectionNote(pose, 'knuckle', says('room', 'squashed')(asked), 'shoulder', asked.hand),
  ),
  elbow: shoulder(
    { elbowMm: -64, head: 6 },
    { elbowMm: 96, head: 6 },
    (pose, asked) => elbowUnderNote(pose, says('comes_under', 'stays_outside')(asked)),
    { about: [290, 90, 760] },
  ),
  first_side: plan({ awayMm: 30 }, { awayMm: 13, turn: 12 }, (pose, _, asked) =>
    slideNote(pose, asked.side === 'right', says('slides_free', 'jammed')(asked), asked.hand),
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
      { measured: 'fingerAngle' },
    )(asked),
  tip_first: ({ side }) =>
    side === 'right'
      ? tipFigure({ groove: -4.6, finger: 1 }, 'inner_corner')
      : tipFigure({ groove: 0.4, finger: 1 }, 'middle_of_pad'),
  tip_fourth: ({ side }) =>
    side === 'right'
      ? tipFigure({ groove: 3.4, finger: 4 }, 'where_built')
      : tipFigure({ groove: -5, finger: 4 }, 'forced_in'),
  last_joint: section(
    {},
    { collapse: 48, reachMm: 33, knuckleMm: 10 },
    (pose, asked) => sectionNote(pose, 'last', says('rounded', 'given_way')(asked), 'shoulder', asked.hand),
    { close: ['last', 88] },
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
