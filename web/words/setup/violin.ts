import { GENTLY } from './cautions'
import type { SomeItemWords } from './types'

/** The violin’s and the viola’s items: the instrument, then the hand. Common practice, no source. */
export const VIOLIN_WORDS = {
  collarbone: {
    question: 'Does it rest on the collarbone, close to the neck?',
    right: 'On the collarbone, close to the neck, no gap.',
    wrong: 'Out on the joint of the shoulder, or with a gap at the neck.',
    reason: 'Without a bed the hand must hold it up: the neck is squeezed, 3 and 4 come late and flat.',
    change: 'Lay it down again from above, further in.',
    test: 'Look from the front.',
  },
  chin_rest: {
    question: 'Does the side of the jaw rest on it with the head’s weight alone?',
    right: 'Side of the jaw, head’s weight only; the rest low and flat enough not to push.',
    wrong: 'The point of the chin, the head clamped down, a high ridge that hurts.',
    reason: 'A head that clamps makes the shoulder and the hand clamp.',
    change: 'Turn the head a little; another chin rest (a shop fits one).',
    test: 'The head lifts and comes back without the instrument moving.',
  },
  shoulder_rest: {
    question: 'Does it stay with both hands away?',
    right: 'Wide end under the chin rest, close to its feet; width and height fit.',
    wrong: 'It slides off, lifts the shoulder, or tilts steeply: then every finger stands too upright.',
    reason: 'The hand is free only where it need not hold.',
    change: 'Move the rest, lower it, or try without.',
    test: 'Take both hands away and tap the other shoulder, five times; five minutes a day for a beginner.',
  },
  body_angle: {
    question: 'Does it point between straight ahead and straight to the side?',
    right: 'Nose, strings and scroll in a line; longer arms further left, shorter ones further front.',
    wrong: 'In front of the chest, or pulled far out.',
    reason: 'Elsewhere the elbow does not come under, and the bow arm suffers.',
    change: 'Turn the instrument, then the head to it; feet and hips stay.',
    test: 'Think of a clock seen from above.',
  },
  level: {
    question: 'Are the strings about level with the floor?',
    right: 'Level, carried by the upper arm.',
    wrong: 'The scroll droops: the arm hangs and the hand clutches instead.',
    reason: 'What the arm does not carry, the hand holds.',
    change: 'Raise the scroll by the upper arm; the hand loosens at once.',
    test: 'Hold the scroll up for the player: does the hand soften?',
  },
  gap: {
    question: 'Is there an open gap under the neck?',
    right: 'The neck lies above the web of thumb and 1, open below.',
    wrong: 'The neck has sunk into the web: the gap is closed.',
    reason: 'In a sunken hand the fingers are short and slow; 3 and 4 land flat.',
    change:
      'Lower the thumb a little and let the hand stand up. The neck rests on thumb and side, not in the fork.',
    test: 'A pencil passes through. The bow’s stick laid in the crease at the root of the fingers shows the height.',
  },
  squeeze: ({ contact }) => ({
    question: 'Is the hand free of the neck, without a squeeze?',
    right:
      contact === 'tips_only'
        ? 'Only thumb and fingertips touch; nothing holds the neck but its own weight.'
        : 'Thumb and the base of 1 touch lightly; nothing holds the neck but its own weight.',
    wrong: 'A vice: the skin of 1 pressed white, a hand that cannot slide.',
    reason: 'Whoever fears to drop it squeezes; 4 is flat then, and shifts jerk.',
    change: 'Show that it lies there without the hand, on collarbone and shoulder.',
    test: 'The thumb taps and slides; the hand lets go for a moment; fingers play with the thumb off.',
  }),
  thumb_place: ({ thumb_violin }) => ({
    question: {
      opposite_1: 'Does the thumb stand opposite 1?',
      behind_1: 'Does the thumb stand about 25 mm behind 1?',
      opposite_2: 'Does the thumb stand opposite 2, with 1 reaching back?',
    }[thumb_violin],
    right: {
      opposite_1: 'Opposite 1, the safe start.',
      behind_1: 'About 25 mm behind 1, towards the scroll; less on a small instrument.',
      opposite_2: 'Opposite 2, for a short fourth finger: 1 reaches back.',
    }[thumb_violin],
    wrong: 'Forward to 3, or far behind with the wrist folded.',
    reason:
      thumb_violin === 'opposite_2'
        ? 'A thumb that goes on wandering forward takes the whole hand with it: sharp, and sharper.'
        : 'Forward and moving, the thumb takes the whole hand with it: sharp, and sharper.',
    change: 'Set it back to its place, and stop between notes until it stays.',
    test: 'Watch it over a minute of playing.',
  }),
  thumb_joints: {
    question: 'Is the thumb soft, all its joints a little bent?',
    right: 'Slightly bent and soft; a double-jointed one may lean back where it does not press.',
    wrong: 'Bent back and stiff, or lying under the neck and pushing up.',
    reason: 'Its stiffness spreads to the fingers.',
    change: 'Let it draw small circles on the neck, then play on.',
    test: 'Small circles on the neck.',
  },
  thumb_height: {
    question: 'Is the thumb’s tip no higher than the board’s edge?',
    right: 'At the edge for most hands; large hands a little higher while the gap stays open.',
    wrong: 'It sticks up above the board, and the fingers sink below.',
    reason: 'One side up is the other side down.',
    change: 'Lower the thumb, lift the knuckles.',
    test: 'Look along the board.',
  },
  wrist: {
    question: 'Is the wrist in line with the forearm?',
    right: 'Straight on, or a shade outwards; it bends only in the highest positions.',
    wrong: 'Folded in under the neck with the palm resting, or bulging out.',
    reason: 'Folded in, 4 is far away and nothing can shift.',
    change: 'Let the hand come up from the forearm as if it shook somebody’s hand.',
    test: 'A ruler along forearm and hand; room for a small ball between palm and neck.',
  },
  palm: {
    question: 'Does the inside of the hand face the board?',
    right: 'It faces the board; the little finger’s side is close.',
    wrong: 'Turned out to the audience, 4 far from its string.',
    reason: '4 is flat until the forearm turns.',
    change: 'Turn the forearm, little finger’s side in.',
    test: 'The base of 4 is as near to the neck as the base of 1.',
  },
  knuckles: {
    question: 'Do the base knuckles stand above the board?',
    right: 'Higher than the board: more for short fingers, less for long ones; their row along the strings.',
    wrong: 'Below the board, or only the side of 1 is up.',
    reason: 'The angle of all fingers follows from it: flat or steep.',
    change: 'Bring the hand up by the elbow and the forearm, not by the shoulder.',
    test: 'Look from the side.',
  },
  knuckle_room: {
    question: 'Is there room between the knuckles, even when two tips touch?',
    right: 'The base knuckles stay apart when two fingertips touch.',
    wrong: 'Squashed together: the fingers move as one.',
    reason: 'Each finger’s freedom: else half steps are too wide, and 2 and 3 stick.',
    change: 'Let the hand fall open from the roots before the fingers come down.',
    test: 'Touch 2 and 3 at the tips, and look at their roots.',
  },
  elbow: {
    question: 'Does the elbow come under the string that is played?',
    right: 'Hanging for the highest string, further under for each lower one, and for 3 and 4.',
    wrong: 'It stays outside; or is held far under, the fingers too steep; or across the body.',
    reason: 'Outside, the hand falls short on the low strings; held across, the shoulder aches.',
    change: `Find it: place 1 to 4 in tune with the instrument held low, keep that hand and bring it up. ${GENTLY}`,
    test: 'Swing from the highest string to the lowest and back: the knuckles rise and sink with it.',
  },
  first_side: {
    question: 'Is 1 free to slide and lift?',
    right: 'Free: it slides and lifts.',
    wrong: 'Jammed against the neck.',
    reason: 'A jammed 1 cannot go low, nor lead a shift.',
    change: 'Turn the forearm a little, the thumb a little back.',
    test: 'Slide 1 a half step and back.',
  },
  fourth_side: ({ fourth_finger }) => ({
    question: 'Does 4 reach its place by falling?',
    right:
      fourth_finger === 'long'
        ? 'It falls long and flat over the string; the hand does not reach for it.'
        : 'It falls rounded; the hand does not reach for it.',
    wrong: 'Stretched straight each time, or the whole hand throws itself.',
    reason: '4 comes flat and late as long as its side is far.',
    change: `Bring that side in, the elbow under. ${GENTLY}`,
    test: 'Drop 4 ten times without the hand moving.',
  }),
  finger_angle: ({ fingertip }) => ({
    question:
      fingertip === 'near_nail'
        ? 'Do all fingers stand upright, close to the nail?'
        : 'Do all fingers stand between upright and flat?',
    right:
      fingertip === 'near_nail'
        ? 'All four alike, as near the nail as the nail allows.'
        : 'All four alike, between upright and flat and nearer upright; up, across and down.',
    wrong: 'Flat on the pad, or at ninety degrees on the nail’s edge, or 4 unlike the rest.',
    reason: 'The angle makes the place of the tip, and so the pitch.',
    change: 'Height first, then the elbow, then the tilt of the instrument.',
    test: 'The angle of the last joint, in a picture or by eye.',
  }),
  tip_first: {
    question: 'Does 1 stop the string on its inner corner?',
    right: 'On the corner at the thumb’s side.',
    wrong: 'On the middle of the pad.',
    reason: 'On its middle 1 leans away from the others, and the hand cannot stand over the strings.',
    change: 'Turn the forearm in a little until the groove moves.',
    test: 'A pen line down the middle of the tip; look at the groove after twenty notes.',
  },
  tip_fourth: {
    question: 'Does 4 stop the string where its build puts it?',
    right: 'Where it falls, even on the outer side.',
    wrong: 'Forced onto the inner corner, straight and locked.',
    reason: 'A locked 4 is neither quick nor in tune.',
    change: 'Let it be.',
    test: 'Drop it from above and look at the groove.',
  },
  last_joint: {
    question: 'Does the last joint stay rounded?',
    right: 'Rounded and firm, the pull straight down.',
    wrong: 'It gives way, or pulls the string aside.',
    reason: 'The pitch of a held note wobbles with it.',
    change: 'Arch it; weight from the arm, no more pressure than stops the string.',
    test: 'Press until it just speaks, then half of the rest.',
  },
  waiting_fingers: ({ waiting_fingers }) => ({
    question:
      waiting_fingers === 'hover'
        ? 'Do the fingers that wait stay low above their places?'
        : 'Do the fingers that wait rest, and come back by themselves?',
    right:
      waiting_fingers === 'hover'
        ? 'Low above their places: a constant frame.'
        : 'At rest near the one that plays, and back by a known movement.',
    wrong: '4 curls or flies up when 3 goes down; all of them tense in the air.',
    reason: 'What flies away comes back late and elsewhere.',
    change: 'A slow scale of an old piece, one finger watched, a stop between notes.',
    test: 'Ten seconds on video.',
  }),
} as const satisfies SomeItemWords
