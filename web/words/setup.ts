import type { FamilyId, RemedyId, Schools, SetupItemId, Symptom } from '#core'

/** What a teacher is asked of one item, and told when it is not right. Common practice, no source. */
export interface ItemWords {
  readonly question: string
  readonly right: string
  readonly wrong: string
  readonly reason: string
  readonly change: string
  readonly test: string
}

const DOCTOR = 'a doctor or a physiotherapist who treats players'

/** Shown wherever pain is told. This tool measures; it does not treat. */
export const PAIN_CAUTION = `Stop and rest. Ask ${DOCTOR} before playing goes on: this tool measures, it does not treat.`
/** Shown where a hand or an arm is to be moved. */
export const GENTLY = 'Gently: never force the elbow round, and stop at discomfort.'

const WORDS: Record<SetupItemId, ItemWords | ((schools: Schools, family: FamilyId) => ItemWords)> = {
  pain: {
    question: 'Does nothing hurt, now or after practice?',
    right: 'None, now or after practice.',
    wrong: 'Pain, numbness or tingling; an ache at the front of the shoulder from an elbow held across.',
    reason: 'Pain is never practised away, and nothing else is judged while something hurts.',
    change: PAIN_CAUTION,
    test: 'Ask it every lesson: now, yesterday after practice, in the night.',
  },
  tension: {
    question: 'Do the shoulders hang, and does the breath go on?',
    right: 'Shoulders hang, breath goes on, the jaw is loose.',
    wrong: 'The shoulder pushed up under the instrument, breath held, teeth clenched.',
    reason: 'Tension there reaches the fingers.',
    change: 'Shake out, let the arm hang, and bring it up again without the shoulder.',
    test: 'Move the shoulder while the instrument stays; speak while holding a note.',
  },
  tuned: {
    question: 'Are the open strings in tune?',
    right: 'Every open string in tune.',
    wrong: 'One or more of them off.',
    reason: 'Every later step is void on an untuned instrument.',
    change: 'Tune all of them, then go on.',
    test: 'By ring with the neighbour, or with a meter.',
  },
  size: {
    question: 'Does the size suit hand and arm?',
    right: 'The comfortable span reaches the frame, and the arm reaches the scroll softly bent.',
    wrong: 'Too big: a straight arm, and 4 never arrives. Too small: the fingers crowd.',
    reason: 'A hand that cannot reach learns to force.',
    change: 'Measure the span, and try the size that fits it. Never stretch 4 upwards instead.',
    test: 'Span against frame in the file of the hand; arm along the instrument to the scroll.',
  },
  nails: {
    question: 'Can the tips stand without a nail touching?',
    right: 'Short: the tip stands and the nail does not touch.',
    wrong: 'The nail touches first, and the finger lies flat.',
    reason: 'Flat fingers blur the pitch, and forbid a swing later.',
    change: 'Cut them, at home.',
    test: 'Press the tips on the table.',
  },
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
      'Lower the thumb a little and let the hand stand up; the neck rests on thumb and side, not in the fork.',
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
      'Tap on wood, on the ribs, on the string, half a minute at a time; 4 drops with a turn of the forearm, loose on landing.',
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
    test: 'Roll 1-2-4-2-1 and watch 3.',
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
}

/** What is asked and told of an item in a school. */
export function itemWords(itemId: SetupItemId, schools: Schools, family: FamilyId): ItemWords {
  const words = WORDS[itemId]
  return typeof words === 'function' ? words(schools, family) : words
}

/** Exercises of the handbook, with their doses. Common practice, no source. */
export const REMEDY_WORDS: Record<RemedyId, string> = {
  shake_out: 'Shake out and bring the arm up again, 5 to 10 minutes at the start of practice.',
  hands_away: 'Up, hold for a count of five, hand to the right shoulder and back; five minutes a day.',
  tap_on_wood: 'Tap all four fingers on wood, on the instrument, on the string: half a minute at a time.',
  thumb_taps: 'Tap the thumb between notes on a piece learned months ago.',
  thumb_circles: 'Thumb circles on the neck, then play on.',
  thumb_off: 'Play a line with the thumb off the neck, limp.',
  find_elbow: 'Find the elbow: 1-2-3-4 in tune held low across the body, keep that hand, bring it up.',
  swing_elbow: 'Swing from the highest string to the lowest and back, one note each.',
  fourth_against_open: 'Fourth finger against the open string, a few drops a day.',
  drop_fourth: 'Drop 4 ten times without the hand moving.',
  slow_scale_hover: 'A slow scale with every finger over its place, stopping between notes.',
  lift_from_rest: 'Quick lift and drop from rest, then no pressing: 5 to 10 minutes.',
  touch_two_and_three: 'Touch 2 and 3 at the tips, silently, then plucked, then bowed.',
  move_arm: 'Hold one pitch and move the arm about.',
  half_the_pressure: 'Press until the note just speaks, then half of the rest.',
  lift_extended_first: 'Lift and drop the extended 1, thumb still.',
  roll_1_2_4: 'Roll 1-2-4-2-1-4-2-4 from the thinnest string down.',
  silent_slides: 'Silent slides along the string, thumb with the hand.',
  tune_strings: 'Tune all strings, then read the open ones again.',
}

/** What the readings of such a hand tend to show. */
export const SYMPTOM_WORDS: Record<Symptom, string> = {
  hand_sharp: 'the whole hand sharp',
  hand_flat: 'the whole hand flat',
  creeping_sharp: 'sharper and sharper',
  narrow_frame: 'a narrow frame',
  wide_frame: 'a wide frame',
  fourth_flat: '4 flat',
  fourth_late: '4 late',
  lowest_strings_off: 'the lowest strings off, 4 worst',
  half_steps_wide: 'half steps too wide',
  one_two_wide: '1–2 wide, 2–3 narrow',
  extension_sharp: 'the extended 1 sharp',
  hand_moved_back: '2, 3 and 4 low after an extension',
  scatter: 'notes that scatter',
  wobble: 'held notes that wobble',
  no_ring: 'no ring',
  strings_off: 'every note off',
}

/** What drawings say, right and wrong. */
const FIGURE_WORDS: Record<string, string> = {
  nothing_hurts: 'nothing hurts',
  stop: 'stop here',
  shoulder_hangs: 'the shoulder hangs',
  shoulder_up: 'pushed up',
  in_tune: 'in tune',
  slipped: 'one has slipped',
  softly_bent: 'softly bent',
  straight_arm: 'nearly straight',
  tip_first: 'the tip stands',
  nail_first: 'the nail comes first',
  close: 'close to the neck',
  gap_at_neck: 'a gap at the neck',
  flat_rest: 'low and flat',
  ridge: 'a ridge, the head clamped',
  stays: 'stays by itself',
  slides_off: 'slides off',
  to_the_left: 'to the left',
  in_front: 'in front of the chest',
  level: 'off the level',
  hangs: 'the scroll hangs',
  open_gap: 'open gap',
  no_gap: 'no gap',
  air_beside: 'air beside the neck',
  vice: 'a vice',
  opposite_1: 'opposite 1',
  behind_1: 'behind 1',
  in_front_of_1: 'in front of 1',
  at_third: 'forward to 3',
  soft_joint: 'bent, soft',
  locked_joint: 'bent back, locked',
  at_the_edge: 'at the edge',
  sticks_up: 'above the edge',
  in_line: 'in line',
  folded: 'folded in',
  faces_board: 'faces the board',
  turned_out: 'turned out',
  above_board: 'knuckle above the board',
  below_board: 'knuckle below',
  room: 'apart at the roots',
  squashed: 'squashed together',
  comes_under: 'comes under',
  stays_outside: 'stays outside',
  slides_free: 'slides free',
  jammed: 'jammed',
  falls_down: 'falls on its place',
  stretched: 'stretched for, short',
  between: 'last joint to the string',
  flat: 'flat on the pad',
  inner_corner: 'inner corner',
  middle_of_pad: 'middle of the pad',
  where_built: 'where it is built to fall',
  forced_in: 'forced inwards',
  rounded: 'rounded',
  given_way: 'given way',
  low_above: 'low above their places',
  at_rest: 'at rest',
  curls_up: '4 curls up',
  tall: 'tall; the cello leans',
  slumped: 'slumped',
  beside_head: 'peg over the ear',
  beside_ear: 'machine over the ear',
  too_low: 'below the ear',
  endpin: 'endpin shows',
  carries: 'carries',
  dropped: 'dropped',
  behind_the_neck: 'in front of 1, behind the neck',
  out_to_the_side: 'out to the side',
  rests_there: 'rests',
  pushes: 'pushes in',
  finger_a_semitone: 'a finger a semitone',
  each_in_turn: 'each in turn',
  held_open: 'held open',
  from_rest: 'from rest',
  held_high: 'held high',
  drops_back: '1 drops back alone',
  hand_follows: 'the hand follows',
  thumb_came_along: 'thumb came along',
  thumb_left: 'thumb left behind',
  leans_on_body: 'leans on the body',
  held_upright: 'held up by the hand',
  off_the_body: 'off the body',
  square: 'square',
  turned: 'turned',
  middle_of_neck: 'in the middle of the back',
  round_the_side: 'round the side',
  arched: 'arched',
  helps_fourth: '3 helps 4',
  own_semitone: 'its own semitone',
  left_out: 'left in the air',
  above_end: 'above the end',
  in_the_air: 'in the air',
}

export function figureWords(says: string): string {
  return FIGURE_WORDS[says] ?? says
}
