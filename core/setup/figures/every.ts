import {
  armAngleNote,
  fingerNote,
  hunchNote,
  nailFigure,
  shoulderPart,
  shoulderUpNote,
  upperBody,
} from '../../figure'
import { forEach, plan, player, says, shoulder, type Draw } from './poses'

/** A body’s own pain and a string’s own pitch cannot be seen: these are asked in words. */
export const EVERY_DRAWINGS = {
  tension: forEach(
    shoulder(
      { head: 6 },
      { hunch: 50, head: 20 },
      (pose, asked) => shoulderUpNote(pose, says('shoulder_hangs', 'shoulder_up')(asked)),
      { about: [60, -40, 560] },
    ),
    (plays) =>
      player(
        plays,
        {},
        { hunch: 84, slump: 6 },
        (pose, asked) => hunchNote(pose, says('shoulder_hangs', 'shoulder_up')(asked)),
        { close: upperBody },
      ),
  ),
  size: forEach(
    (asked) => {
      // The same instrument on a longer arm and on a shorter one.
      const [arm, instrument] = asked.side === 'right' ? [0.911, 1] : [0.8895, 1]
      return shoulderPart(
        { hand: 'round_scroll', arm, head: 6 },
        { x: 270, y: 10 },
        860,
        (pose) => armAngleNote(pose, says('softly_bent', 'straight_arm')(asked), instrument),
        instrument,
      )
    },
    () =>
      plan({}, { shift: { 3: -9, 4: -21 }, ghost: true, turn: 8 }, (pose, family, asked) =>
        fingerNote(pose, family, [4], says('fourth_arrives', 'fourth_short')(asked), asked.hand),
      ),
  ),
  nails: ({ side }) => (side === 'right' ? nailFigure(0, 'tip_first') : nailFigure(6.5, 'nail_first')),
} satisfies Record<string, Draw>
