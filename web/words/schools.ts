import type { ConflictCode, SchoolChoice, SchoolQuestion } from '#core'
import { inStudioUnit } from './numbers'

/** A school: its name, what it is for, and when another serves better. Common practice, no source. */
export interface SchoolWords {
  readonly name: string
  readonly isFor: string
  readonly otherwise: string
}

export const QUESTION_NAMES: Record<SchoolQuestion, string> = {
  tapes: 'Number of tapes',
  waiting_fingers: 'Fingers not playing',
  thumb_violin: 'Thumb, violin and viola',
  thumb_cello: 'Thumb, cello',
  thumb_bass: 'Thumb, bass',
  contact: 'Hand and neck',
  fingertip: 'Fingertip',
  fourth_finger: 'Fourth finger',
  fourth_on_neighbour: '4 on the next string',
  bass_fingering: 'Bass fingering',
  climbing: 'Climbing a scale',
  chromatic_scales: 'Chromatic scales',
}

const WORDS = {
  tapes: {
    none: {
      name: 'None',
      isFor: 'A good ear from the start; nothing to outgrow.',
      otherwise: 'A class without a pitch to lean on learns faster with one.',
    },
    one: {
      name: 'One',
      isFor: 'One sure place from which the hand finds the rest.',
      otherwise: 'A hand that closes up needs a second, at 3 or 4.',
    },
    two: {
      name: 'At most two',
      isFor: 'Both ends of the frame, and the ear between.',
      otherwise: 'Large classes want every finger; good ears none.',
    },
    every: {
      name: 'Every finger',
      isFor: 'Classes: everybody sees where to put which finger.',
      otherwise: 'Eyes take over from ears: fade early.',
    },
  },
  waiting_fingers: {
    hover: {
      name: 'Hover over their places',
      isFor: 'Trains a constant frame; usual on the violin.',
      otherwise: 'Small hands and cellos: holding the spread makes tension.',
    },
    rest: {
      name: 'Rest and come back',
      isFor: 'No tension between notes; at speed the fingers stay near anyway.',
      otherwise: 'Where fingers wander, hovering builds the frame.',
    },
  },
  thumb_violin: {
    opposite_1: {
      name: 'Opposite 1',
      isFor: 'The safe start.',
      otherwise: 'A tight hand opens with the thumb behind; a short 4 asks for it further on.',
    },
    behind_1: {
      name: 'About 25 mm behind 1',
      isFor: 'Opens the hand and softens the thumb.',
      otherwise: 'A short fourth finger then has far to go.',
    },
    opposite_2: {
      name: 'Opposite 2',
      isFor: 'A short fourth finger: 1 reaches back.',
      otherwise: 'Watch for the whole hand creeping sharp; never as far as 3.',
    },
  },
  thumb_cello: {
    behind_2: {
      name: 'Behind 2',
      isFor: 'A balanced hand, and a clear start for a class.',
      otherwise: 'Small hands open further with it between 1 and 2.',
    },
    between_1_and_2: {
      name: 'Between 1 and 2',
      isFor: 'Small hands and backward extensions.',
      otherwise: 'Forward extensions want it behind 2.',
    },
  },
  thumb_bass: {
    behind_1: {
      name: 'Behind 1',
      isFor: 'A firm first finger.',
      otherwise: '4 has its weight sooner with the thumb behind 2.',
    },
    behind_2: {
      name: 'Behind 2',
      isFor: 'Weight shared between 1 and 4.',
      otherwise: 'A wandering 1 stands firmer with the thumb behind it.',
    },
  },
  contact: {
    tips_only: {
      name: 'Only thumb and fingertips',
      isFor: 'A free hand for shifts and vibrato.',
      otherwise: 'Beginners find their place by the base of 1.',
    },
    base_of_1: {
      name: 'Thumb and base of 1, lightly',
      isFor: 'A place the hand can feel.',
      otherwise: 'Where touching turns into squeezing, let it go.',
    },
  },
  fingertip: {
    near_nail: {
      name: 'As near the nail as possible',
      isFor: 'Clear pitch, and room beside the next string.',
      otherwise: 'Soft tips and later vibrato like it flatter.',
    },
    between: {
      name: 'Between upright and flat',
      isFor: 'Tone and a swing later.',
      otherwise: 'Thick fingertips on a small board stand upright.',
    },
  },
  fourth_finger: {
    rounded: {
      name: 'Rounded',
      isFor: 'Strength, trills and double stops.',
      otherwise: 'A short 4 that must be pulled round lies better long.',
    },
    long: {
      name: 'Laid out long and flat',
      isFor: 'A short 4 arrives without the hand reaching.',
      otherwise: 'Double stops and fast notes want it rounded.',
    },
  },
  fourth_on_neighbour: {
    while_new: {
      name: 'Allowed while the finger is new',
      isFor: 'First the place, then the cleanness.',
      otherwise: 'It kills the ring and double stops: not for long.',
    },
    never: {
      name: 'Never',
      isFor: 'The ring tells every note from the first.',
      otherwise: 'A very small 4 may need a few weeks of grace.',
    },
  },
  bass_fingering: {
    one_two_four: {
      name: '1-2-4',
      isFor: 'A hand that never spans more than its whole tone.',
      otherwise: 'Large hands in higher positions save shifts with four.',
    },
    four_finger: {
      name: 'Four fingers',
      isFor: 'Fewer shifts, mostly in higher positions.',
      otherwise: 'In the low positions most hands are too small for it.',
    },
  },
  climbing: {
    early: {
      name: 'Shift early, on 1',
      isFor: 'Pairs of fingers on the top string: every shift is the same small one.',
      otherwise: 'Fast scales have fewer shifts if the hand stays.',
    },
    stay: {
      name: 'Stay and stretch',
      isFor: 'Fewer shifts; 4 reaches a half step beyond its place.',
      otherwise: 'Small hands: a stretched 4 tenses, shift instead.',
    },
  },
  chromatic_scales: {
    slide: {
      name: 'Slide 1 1 2 2 3',
      isFor: 'The hand stays in its position; small slides trained from early on.',
      otherwise: 'Slides smear in fast passages.',
    },
    semitones: {
      name: 'One finger a semitone',
      isFor: 'Every note is clear; usual today where it goes fast.',
      otherwise: 'More shifts: first learn where the position is.',
    },
  },
} satisfies { readonly [Q in SchoolQuestion]: Readonly<Record<SchoolChoice<Q>, SchoolWords>> }

/** What a choice is called, what it is for, and when another serves better. */
export function schoolWords<Q extends SchoolQuestion>(question: Q, choice: SchoolChoice<Q>): SchoolWords {
  const { name, isFor, otherwise } = (WORDS[question] as Readonly<Record<SchoolChoice<Q>, SchoolWords>>)[
    choice
  ]
  return { name: inStudioUnit(name), isFor: inStudioUnit(isFor), otherwise: inStudioUnit(otherwise) }
}

export const CONFLICT_WORDS: Record<ConflictCode, string> = {
  hover_beyond_span:
    'The fingers are to hover over their tapes, and this hand does not span the frame: held open it tenses. Let the hand rest and come back, bring the thumb forward, or lend a smaller size.',
  every_tape_with_rest:
    'A tape for every finger asks the fingers to wait over them. This hand is to rest and come back. Two tapes show the ends of the frame and leave it free.',
  contact_with_reach_back:
    'With the thumb opposite 2 the first finger reaches back and its base leaves the neck. Contact there pulls the hand forward. Choose fingertips only, or set the thumb back.',
  upright_with_long_fourth:
    'Fingertips stand near the nail and the fourth lies long and flat: 4 will be unlike the rest. Say so to the student, or choose “between upright and flat”.',
  neighbour_with_ring:
    'Places are found by the ring. A long 4 that lies on the next string stops the string that is to ring. Check 4 against the open string another way while this holds.',
  four_fingers_beyond_span:
    'Four fingers span a minor third, and this hand does not reach it in first position. Take 1-2-4 down here, or a smaller size.',
}
