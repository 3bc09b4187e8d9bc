import { PAIN_CAUTION } from '../pain'
import type { SomeItemWords } from './types'

/** What every player is asked first. Common practice, no source. */
export const EVERY_WORDS = {
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
} as const satisfies SomeItemWords
