import {
  elbowNote,
  label,
  upperBody,
  leanNote,
  pegNote,
  pluckFigure,
  rowNote,
  sectionNote,
  thumbNote,
  besideHead,
  endpinNote,
} from '../../figure'
import { section, plan, player, says, BASS_THUMB_AT, type Draw } from './poses'

export const BASS_DRAWINGS = {
  bass_endpin: player(
    'standing',
    {},
    { endpinMm: 20 },
    (pose, asked) => [
      // Of a measured one only its own number is known.
      ...(asked.measured === undefined ? pegNote(pose, says('beside_ear', 'too_low')(asked)) : []),
      ...endpinNote(pose, 'endpin'),
    ],
    { measured: 'endpinMm', close: besideHead },
  ),
  bass_stance: player('standing', { handAway: true }, { lean: 2 }, (pose, asked) =>
    leanNote(pose, says('leans_on_body', 'held_upright')(asked)),
  ),
  bass_elbow: player(
    'standing',
    {},
    { drop: 1 },
    (pose, asked) => elbowNote(pose, says('off_the_body', 'dropped')(asked)),
    { close: upperBody },
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
  bass_thumb_joints: section(
    { thumbBend: 24 },
    { thumbBend: -30 },
    (pose, asked) =>
      sectionNote(pose, 'thumb', says('soft_joint', 'locked_joint')(asked), 'standing', asked.hand),
    { close: ['thumb', 150] },
  ),
  bass_fingers: section({ fingerAngle: 58 }, { collapse: 44, reachMm: 33, knuckleMm: 10 }, (pose, asked) =>
    sectionNote(pose, 'last', says('arched', 'given_way')(asked), 'standing', asked.hand),
  ),
  bass_third_finger: section({ fingers: 'third_beside' }, { fingers: 'third_in_air' }, (_, asked) => [
    label(
      says(
        asked.schools.bass_fingering === 'one_two_four' ? 'helps_fourth' : 'own_semitone',
        'left_out',
      )(asked),
    ),
  ]),
  bass_shift: plan({ handMm: 90, thumbMm: 114 }, { handMm: 90, thumbMm: 24 }, (pose, family, asked) =>
    thumbNote({ ...pose, thumbMm: pose.thumbMm }, family, says('thumb_came_along', 'thumb_left')(asked)),
  ),
  bass_plucking: ({ side }) =>
    side === 'right' ? pluckFigure(true, 'above_end') : pluckFigure(false, 'in_the_air'),
} satisfies Record<string, Draw>
