import type { SomeItemWords } from './types'

/** The bass’s items. Common practice, no source. */
export const BASS_WORDS = {
  bass_endpin: {
    question: 'Is the lowest machine level with the top of the ear?',
    right: 'Beside the top of the left ear.',
    wrong: 'Too low and the back bends; too high and the shoulder rises.',
    reason: 'Height decides how the arm meets the neck.',
    change: 'Set it, measure what shows, and keep the number in the file.',
    test: 'Measure from the floor to the body, in mm.',
  },
  bass_stance: {
    question: 'Does the bass stand by the body, with the left hand away?',
    right: 'Turned a quarter and leaning on the body, one foot behind; the left hand holds nothing up.',
    wrong: 'Held upright by the left hand.',
    reason: 'A hand that holds cannot move.',
    change: 'Lean it in, then take the hand away again.',
    test: 'Take the left hand away: it stays.',
  },
  bass_elbow: {
    question: 'Is the elbow off the body?',
    right: 'Off the body, so that the fingers come straight across.',
    wrong: 'Dropped to the ribs.',
    reason: 'Dropped, the wrist folds and the thumb leaves the middle.',
    change: 'Lift it until the fingers stand across the strings.',
    test: 'Room for a fist under the arm.',
  },
  bass_hand: {
    question: 'Is the hand square to the neck?',
    right: 'As a hand closes round a thick pole.',
    wrong: 'Turned as on a violin.',
    reason: 'Turned, the fingers lean and the frame narrows.',
    change: 'The row of knuckles along the strings; who comes from the violin leaves that turn behind.',
    test: 'Look at the row of knuckles.',
  },
  bass_thumb_place: ({ thumb_bass }) => ({
    question:
      thumb_bass === 'behind_1'
        ? 'Is the thumb in the middle of the neck’s back, behind 1?'
        : 'Is the thumb in the middle of the neck’s back, behind 2?',
    right: `Middle of the neck’s back, level with the floor, behind ${thumb_bass === 'behind_1' ? '1' : '2'}.`,
    wrong: 'Round the side or over the edge: the fingers flatten.',
    reason: 'From the middle all fingers are equally near.',
    change: 'Mark the middle of the neck, and come back to it.',
    test: 'Look from behind.',
  }),
  bass_thumb_joints: {
    question: 'Is the thumb slightly bent, and alive?',
    right: 'Slightly bent, alive.',
    wrong: 'Straight and flat, or bent back.',
    reason: 'As the thumb, so the arch of the fingers.',
    change: 'Tap it between notes.',
    test: 'Tap.',
  },
  bass_fingers: {
    question: 'Are the fingers curved arches on one string?',
    right: 'The string on the firm part near the tip, neither nail nor pad; all on one string.',
    wrong: 'The last joint gives way: pitch floats, notes come late; or the very tip, which hurts.',
    reason: 'An arch carries weight; a bent one spends it.',
    change:
      'Tap on wood, on the ribs, on the string, half a minute at a time. Then 4 drops with a turn of the forearm, loose on landing.',
    test: 'A clear percussive sound.',
  },
  bass_third_finger: ({ bass_fingering }) => ({
    question:
      bass_fingering === 'four_finger' ? 'Does 3 have its own semitone?' : 'Does 3 rest with 4 and help it?',
    right:
      bass_fingering === 'four_finger'
        ? 'Its own semitone, between 2 and 4.'
        : '3 rests with 4 and helps it.',
    wrong: 'Left out in the air.',
    reason: 'The weight behind 4 comes from it.',
    change: 'Let 3 and 4 fall together, then listen to 4.',
    test: 'Roll from 1 to 4 and back, and watch 3.',
  }),
  bass_shift: {
    question: 'Does the whole hand shift as one, thumb included?',
    right: 'Thumb with it, the same shape in the lower half of the neck.',
    wrong: 'The thumb left behind.',
    reason: 'A hand that leaves its thumb arrives smaller.',
    change: 'Silent slides, light as a feather, the thumb leading.',
    test: 'Slide 1 two semitones, and look at the thumb.',
  },
  bass_plucking: {
    question: 'Does the plucking hand stand on the side of the board?',
    right: 'Thumb on the side about 100 mm above its end, the side of the first finger on the string.',
    wrong: 'Tip only, the hand in the air.',
    reason: 'From a firm place the finger’s weight makes the sound.',
    change: 'Thumb first, then let the finger fall through the string.',
    test: 'Four even notes a string.',
  },
} as const satisfies SomeItemWords
