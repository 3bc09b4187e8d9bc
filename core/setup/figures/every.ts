import {
  BASSIST,
  CELLIST,
  label,
  nailFigure,
  playerFigure,
  playerJoints,
  shoulderFigure,
  shoulderJoints,
  shoulderNote,
  spot,
  stringsFigure,
  type ShoulderPose,
  SHOULDER,
} from '../../figure'
import { shoulder, player, says, whole, forEach, type Draw } from './poses'

export const EVERY_DRAWINGS = {
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
} satisfies Record<string, Draw>
