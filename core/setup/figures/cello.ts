import {
  elbowNote,
  fingerNote,
  pegNote,
  sectionNote,
  thumbNote,
  tipAngleNote,
  besideHead,
  endpinNote,
  leanNote,
  liftNote,
  pushNote,
  upperBody,
} from '../../figure'
import { section, plan, arm, player, says, CELLO_THUMB_AT, type Draw } from './poses'

export const CELLO_DRAWINGS = {
  cello_sitting: player('knees', {}, { slump: 24, lean: 34 }, (pose, asked) => [
    ...leanNote(pose, says('tall', 'slumped')(asked)),
  ]),
  cello_endpin: player(
    'knees',
    {},
    { endpinMm: 170, slump: 12 },
    (pose, asked) => [
      // Of a measured one only its own number is known.
      ...(asked.measured === undefined ? pegNote(pose, says('beside_head', 'too_low')(asked)) : []),
      ...endpinNote(pose, 'endpin'),
    ],
    { measured: 'endpinMm', close: besideHead },
  ),
  cello_elbow: player(
    'knees',
    {},
    { drop: 1 },
    (pose, asked) => elbowNote(pose, says('carries', 'dropped')(asked)),
    { close: upperBody },
  ),
  cello_wrist: arm({ wrist: 0 }, { wrist: 38 }, says('in_line', 'folded'), 'wrist'),
  cello_thumb_place: plan(
    ({ thumb_cello }) => ({ thumbMm: CELLO_THUMB_AT[thumb_cello] }),
    { thumbMm: -38, thumbOutMm: 4 },
    (pose, family, asked) => thumbNote(pose, family, says('behind_the_neck', 'out_to_the_side')(asked)),
    (value) => ({ thumbMm: value }),
  ),
  cello_thumb_joints: section(
    { thumbBend: 24 },
    { thumbBend: -30 },
    (pose, asked) =>
      sectionNote(pose, 'thumb', says('soft_joint', 'locked_joint')(asked), 'knees', asked.hand),
    { close: ['thumb', 136] },
  ),
  cello_thumb_push: section(
    {},
    { thumbBend: -6, fingerAngle: 86 },
    (pose, asked) => pushNote(pose, asked.side === 'wrong', says('rests_there', 'pushes')(asked), asked.hand),
    { close: ['thumb', 136] },
  ),
  cello_fingers: section({ fingerAngle: 58 }, { fingerAngle: 24, reachMm: 33, knuckleMm: 2 }, (pose, asked) =>
    tipAngleNote(pose, says('rounded', 'flat')(asked), 'knees'),
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
  cello_lift: section({ liftMm: 9 }, { liftMm: 44, fingerAngle: 26, knuckleMm: 16 }, (pose, asked) =>
    liftNote(pose, says('from_rest', 'held_high')(asked), 'knees'),
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
} satisfies Record<string, Draw>
