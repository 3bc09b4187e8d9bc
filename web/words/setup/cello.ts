import type { SomeItemWords } from './types'

/** The cello’s items. Common practice, no source. */
export const CELLO_WORDS = {
  cello_sitting: {
    question: 'Does the player sit tall, at the front of the chair?',
    right: 'Tall, feet flat, the cello between the knees and touching the chest.',
    wrong: 'Slumped, or the cello gripped by the knees.',
    reason: 'The arm’s weight needs a tall back.',
    change: 'Front of the chair, feet under the knees; let the knees go.',
    test: 'Stand up without moving the feet.',
  },
  cello_endpin: {
    question: 'Do the lowest pegs come beside the head, not on it?',
    right: 'Pegs beside the head, the body at an angle that leaves the left arm level.',
    wrong: 'Too short and the arm hangs; too long and the shoulder rises.',
    reason: 'The endpin sets the height of the arm for the whole lesson.',
    change: 'Set it, measure what shows, and keep the number in the file.',
    test: 'Measure from the floor to the body, in mm.',
  },
  cello_elbow: {
    question: 'Does the forearm carry on the line of the hand?',
    right: 'In a line with hand and wrist, the elbow neither dropped nor lifted.',
    wrong: 'Dropped to the ribs, the wrist folded.',
    reason: 'Weight does not reach the string round a corner.',
    change: 'Raise the elbow until the weight is felt in the fingertip.',
    test: 'Draw the arm away and let it fall.',
  },
  cello_wrist: {
    question: 'Is the wrist level with forearm and hand?',
    right: 'Level.',
    wrong: 'Bent out or in.',
    reason: 'Round a bent wrist nothing moves freely.',
    change: 'Look at the elbow first; the wrist follows it.',
    test: 'A ruler along forearm and hand.',
  },
  cello_thumb_place: ({ thumb_cello }) => ({
    question:
      thumb_cello === 'behind_2' ? 'Does the thumb rest behind 2?' : 'Does the thumb rest between 1 and 2?',
    right: thumb_cello === 'behind_2' ? 'Behind 2, lightly.' : 'Between 1 and 2, lightly.',
    wrong: 'Far out to the side, hooked, or over the top.',
    reason: 'The hand opens evenly from there.',
    change: 'Thumb at its place, 2 opposite or beside it, 1 reached back, the others spread.',
    test: 'Look from behind.',
  }),
  cello_thumb_joints: {
    question: 'Are all three joints of the thumb soft?',
    right: 'Soft, also the one near the wrist; bent outwards.',
    wrong: 'Bent back and locked at the base.',
    reason: 'Locked: 1–2 too wide, 2–3 too narrow, no trill, stiff shifts.',
    change: 'Thumb off the neck while playing, limp, not stiff in the air; then let it come back.',
    test: 'An even, quick trill; tap the thumb.',
  },
  cello_thumb_push: {
    question: 'Does the thumb rest, without pushing?',
    right: 'It rests.',
    wrong: 'It pushes into the neck as the fingers press.',
    reason: 'Two forces that cancel leave a stiff hand.',
    change: 'Weight from the arm: hold one pitch and move the arm about.',
    test: 'Your finger between thumb and neck.',
  },
  cello_fingers: {
    question: 'Are the fingers rounded, each on its firm part?',
    right: 'Rounded, a little aslant.',
    wrong: 'Flat, or the last joints give way.',
    reason: 'A flat finger is slow, and its pitch unsure.',
    change: 'An arch from the base knuckle to the tip.',
    test: 'Tap each on the board: a clear sound.',
  },
  cello_spread: ({ waiting_fingers }) => ({
    question:
      waiting_fingers === 'hover'
        ? 'Does the hand lie a finger a semitone, without effort?'
        : 'Is each finger balanced in turn, the others coming along?',
    right:
      waiting_fingers === 'hover'
        ? 'Closed hand, a finger a semitone, kept while playing.'
        : 'Each finger balanced in turn, the others coming along and back by a known movement.',
    wrong: 'Held open stiffly over the tapes, or fingers that wander.',
    reason: 'A spread that is held by force makes tension; at speed the fingers stay near by themselves.',
    change: 'Release first, then place.',
    test: 'Watch the back of the hand: do tendons stand out?',
  }),
  cello_lift: {
    question: 'Do the fingers come from rest, quick up and down?',
    right: 'From rest, quick, and then no more pressing.',
    wrong: 'Held high above the string, waiting.',
    reason: 'The speed does it, not the force.',
    change: 'Lift and drop from rest, five to ten minutes at the start of practice.',
    test: 'Look for tendons.',
  },
  cello_extension_back: {
    question: 'Does 1 drop back alone, by a turn of the forearm?',
    right: 'The forearm turns, 1 drops back; thumb, 2, 3 and 4 stay.',
    wrong: 'Pinched, 1 slides up and lands sharp; or the hand goes along, and 2, 3, 4 are flat.',
    reason: 'The extra step lies between 1 and 2 alone.',
    change: 'Turn, do not spread.',
    test: 'Lift and drop the extended 1, the thumb still.',
  },
  cello_extension_forward: {
    question: 'Does the thumb move up with 2, 3 and 4?',
    right: '2, 3, 4 and thumb go up together; 1 stays.',
    wrong: 'The thumb is left behind, the hand strained.',
    reason: 'Without the thumb the hand stretches, and stays short.',
    change: 'Begin the movement with the thumb.',
    test: 'The thumb is still behind 2 afterwards.',
  },
} as const satisfies SomeItemWords
