import type { DoubleStopKind, DrillFault, DrillId, Frame, Schools } from '#core'

const DRILL_NAMES: Record<DrillId, string> = {
  open_and_first: 'Open and 1',
  one_two_one: '1-2-1',
  one_two_three_two: '1-2-3-2',
  pattern: 'The pattern, up and down',
  bass_roll: 'Rolling the hand',
  up_from_open: 'Up from the open string and back',
  fourth_against_open: '4 against the open string',
  extended_first: 'Extended 1, lifted and dropped',
  octave_one_four: 'Octave with 1 and 4',
}

/** A drill; one that takes every finger of the frame by these: `Rolling 1-2-4`, or where 3 has a semitone of its own `Rolling 1-2-3-4`. */
export function drillName(id: DrillId, frame?: Frame): string {
  const fingers = frame && Object.keys(frame.offsets).join('-')
  if (fingers && id === 'bass_roll') return `Rolling ${fingers}`
  if (fingers && id === 'up_from_open') return `0-${fingers} and back`
  return DRILL_NAMES[id]
}

const DRILL_HOW: Record<DrillId, string> = {
  open_and_first: 'Across the strings both ways; hear the ring each time.',
  one_two_one: 'In quarters, eighths, sixteenths, aiming each drop; 1 stays down.',
  one_two_three_two: 'In quarters, eighths, sixteenths, aiming each drop',
  pattern: 'Silently first, then plucked, then bowed.',
  bass_roll: 'From the G string down, the whole hand rolling; thumb soft.',
  up_from_open: 'Name each note aloud.',
  fourth_against_open: '4 must match the open string: listen for the ring.',
  extended_first: 'The thumb stays still; turn the forearm, do not pinch.',
  octave_one_four: 'Slowly, and only if it is comfortable: stop at any strain.',
}

const DRILL_FAULTS: Record<DrillFault | 'no_hand', string> = {
  no_hand: 'The key has no hand on this string in this position: choose another string, position or key.',
  fingers_missing: 'This hand has not the fingers for it: choose another string, position or key.',
  one_note: 'The key has one note only under this hand: choose another string, position or key.',
  no_such_open_string:
    '4 is no open string’s note here: choose a string with one above it, and 4 on that note.',
  not_extended: '1 does not drop back here: choose a key with its flat, as E♭ major on the D string.',
  no_octave: '1 and 4 are no octave here: choose another string, position or key.',
}

export function drillFaultSentence(fault: DrillFault | 'no_hand'): string {
  return DRILL_FAULTS[fault]
}

export const DOUBLE_STOP_NAMES: Record<DoubleStopKind, string> = {
  thirds: 'Thirds',
  sixths: 'Sixths',
  octaves: 'Octaves',
  fourth_against_open: '4 with the open string',
}

/** How a drill is played, in the student’s school. */
export function drillHow(id: DrillId, { waiting_fingers }: Pick<Schools, 'waiting_fingers'>): string {
  if (id !== 'one_two_three_two') return DRILL_HOW[id]
  return `${DRILL_HOW[id]}; ${waiting_fingers === 'hover' ? 'fingers hover low' : 'fingers rest between and come back'}.`
}
