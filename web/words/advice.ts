import {
  familyOf,
  itemsBehind,
  MATCH_EXERCISES,
  roundItems,
  type FamilyId,
  type Finding,
  type HoldId,
  type Schools,
  type SetupArrangement,
} from '#core'
import type { KeptVerdict, SetupNow } from '#contracts'
import { shortDay } from './dates'
import { listed } from './numbers'
import { practised, type PracticeContext } from './practice'
import { setupName } from './setup-names'
import { shown } from './shown'
import { fingerName } from './trade'

/** What to look at, what to try, and what not to do. Common practice, no source. */
export interface Advice {
  readonly checkFirst: readonly string[]
  readonly thenTry: readonly string[]
  readonly notThis: string
}

type Look = Omit<Advice, 'thenTry'>

/** Whose hand it is about. */
export interface AdviceContext extends Omit<PracticeContext, 'finding'> {
  readonly family: FamilyId
  readonly schools: Schools
}

/** Said once, under whatever is advised for a hand. */
export const STOP_AT_PAIN =
  'Stop at any pain, numbness or tingling, rest, and ask a doctor or a physiotherapist who treats players.'

/** One tape was laid wrongly; several alike were measured from a wrong nut, or for a wrong length. */
function tapeAdvice({
  others = [],
}: {
  readonly others?: Extract<KeptVerdict, { outcome: 'tape_misplaced' }>['others']
}): Advice {
  const tapes = others.length > 0 ? 'tapes' : 'tape'
  return {
    checkFirst: [
      `Measure the string and the ${tapes} from the nut.`,
      others.length > 0
        ? 'Were all of them measured from the edge of the nut, and for this length?'
        : 'Does the tape lie square to the string?',
    ],
    thenTry: [
      `Lay the ${tapes} anew at ${others.length > 0 ? 'their places' : 'its place'}, then read the hand once more.`,
    ],
    notThis: `Do not correct the finger: it does what the ${tapes} ${others.length > 0 ? 'say' : 'says'}. Varnish first: peel gently, no blade.`,
  }
}

/** Advice on the weightiest finding; undefined when there is nothing to work on. */
export function adviceOn(verdict: KeptVerdict, about: AdviceContext): Advice | undefined {
  if (verdict.outcome === 'string_out_of_tune')
    return {
      checkFirst: ['Tune all the strings: a drifting peg spoils every place.'],
      thenTry: ['Read the open string once more, then the fingers.'],
      notThis: 'These notes say nothing about the hand yet.',
    }
  if (verdict.outcome === 'tape_misplaced') return tapeAdvice(verdict)
  if (verdict.outcome === 'other_exercise')
    return {
      checkFirst: [
        verdict.finger === null
          ? 'Which position was played, and are the strings in tune?'
          : 'Which pattern was played: where was the half step?',
      ],
      thenTry: ['Choose the exercise that was played, or play the one that is asked.'],
      notThis: 'These notes say nothing about the hand yet.',
    }
  if (verdict.outcome === 'matched') {
    const { of } = verdict
    return verdict.isOff
      ? { ...matchAdvice(of, about), thenTry: [practised(MATCH_EXERCISES[of], about)] }
      : undefined
  }
  // Right with its tape and off without: the tape is leaned on, whatever a hand without tapes then looks like.
  const leaning = verdict.beside?.find(
    (finding) =>
      finding.code === 'without_tapes' && Math.abs(finding.seenCents) < Math.abs(finding.cents) / 2,
  )
  const finding = leaning ?? ('findings' in verdict ? verdict.findings[0] : undefined) ?? verdict.beside?.[0]
  if (!finding) return undefined
  if (finding.code === 'tape') return tapeAdvice({})
  const helps = shown.exercises.forFinding(finding, about.family)
  return { ...lookAt(finding, about), thenTry: helps.map((id) => practised(id, { ...about, finding })) }
}

function lookAt(finding: Exclude<Finding, { code: 'tape' }>, about: AdviceContext): Look {
  const { schools } = about
  if (finding.code === 'whole_hand') return wholeHandAdvice(finding, about)
  if (finding.code === 'frame') return frameAdvice(finding, about)
  if (finding.code !== 'finger') return adviceOnHand(finding, about)
  return {
    checkFirst: [
      schools.waiting_fingers === 'hover'
        ? `Does the ${fingerName(finding.finger)} drop from above its place, the others hovering?`
        : `Does the ${fingerName(finding.finger)} come from rest, quick, without pressing after?`,
    ],
    notThis: about.hasTapes
      ? 'Do not move the tape to the finger.'
      : `Do not move the hand for ${finding.finger}: the others stand well.`,
  }
}

/** Where two notes do not meet. */
function matchAdvice(of: 'fourth' | 'octave', { family, schools }: AdviceContext): Look {
  const isOnShoulder = isHeldOnShoulder(family)
  if (of === 'octave')
    return {
      checkFirst: ['Is 1 right by itself, and the two strings in tune?'],
      notThis: `Do not stretch 4: ${giveWay(family)}.`,
    }
  const falls = schools.fourth_finger === 'long' ? 'falls laid out' : 'falls rounded'
  return {
    checkFirst: [
      'Is the open string in tune?',
      isOnShoulder
        ? `Does the elbow come under, so that 4 ${falls}?`
        : 'Does the arm come along, so that 4 falls rounded?',
    ],
    notThis: 'Do not reach with the hand: 1 keeps its place.',
  }
}

function isHeldOnShoulder(family: FamilyId): boolean {
  return familyOf(family).hold === 'shoulder'
}

/** What a hand does in place of stretching its last finger. */
function giveWay(family: FamilyId): string {
  // A bass hand is never spread further: it turns, or moves.
  return familyOf(family).hold === 'standing' ? 'turn the hand, or move it' : 'let 1 reach back'
}

/** Finding by finding. */
function adviceOnHand(
  finding: Exclude<Finding, { code: 'whole_hand' | 'frame' | 'finger' | 'tape' }>,
  about: AdviceContext,
): Look {
  const { family, schools } = about
  switch (finding.code) {
    case 'steps':
      return {
        checkFirst: [
          finding.errorMm > 0
            ? 'Do the fingers of a half step touch, or nearly?'
            : 'Do the fingers of a whole step part?',
        ],
        notThis: 'Leave the whole hand where it is: it stands well.',
      }
    case 'locked_thumb':
      return {
        checkFirst: ['Is the thumb soft at all three joints, the base joint above all?'],
        notThis: 'Do not press 2 back by force.',
      }
    case 'elbow':
      return {
        checkFirst: [
          isHeldOnShoulder(family)
            ? 'Does the elbow swing further under for the lower strings?'
            : 'Does the elbow come along when the hand goes to the lower strings?',
        ],
        notThis: 'Never force the elbow round.',
      }
    case 'pinched':
      return {
        checkFirst: ['Does 1 reach back by turning the forearm, or by pinching?'],
        notThis: 'Do not spread by force.',
      }
    case 'dragged':
      return {
        checkFirst: ['Do the thumb and 2 stay where they are when 1 reaches back?'],
        notThis: 'Do not move the hand to the note of 1.',
      }
    case 'creep':
      return {
        checkFirst: [
          'Is the string in tune still at the end?',
          thumbQuestion(family, schools, finding.offsetMm),
        ],
        notThis: 'Leave the fingers’ spacing alone: it is right.',
      }
    case 'string':
      return {
        checkFirst: ['Play the open string: is it in tune?'],
        notThis: 'These notes say nothing about the hand on that string yet.',
      }
    case 'ear_repairs':
      return {
        checkFirst: ['Does each finger land where it stays, or does it slide after?'],
        notThis: 'Do not praise the repair alone: the hand learns where it lands.',
      }
    case 'wobble':
      return {
        checkFirst: [
          `Does the ${fingerName(finding.finger)} collapse in its last joint, or pull the string aside?`,
        ],
        notThis: 'Do not press harder: enough to stop the string, no more.',
      }
    case 'dull':
      return {
        checkFirst: [
          `Does the ${fingerName(finding.finger)} touch its neighbour string, or have too little weight?`,
          'Is there a gap under the base knuckles?',
        ],
        notThis: 'Do not press for the tone: weight, straight down.',
      }
    case 'vibrato':
      return {
        checkFirst: ['Does the vibrato begin on the note and go down from it?'],
        notThis: 'No faster swing before the slow one is even.',
      }
    case 'without_tapes':
      return {
        checkFirst: [`Does the ${fingerName(finding.finger)} look for its tape before it falls?`],
        notThis: 'Do not take all the tapes off at once.',
      }
    case 'place':
      return {
        checkFirst: [
          'Is it the note that the key asks for, or its neighbour a half step off?',
          'Does the hand change its shape for this string, or for this note?',
        ],
        notThis: 'Do not move the whole hand: the other notes stand where they should.',
      }
    case 'scatter':
      return {
        checkFirst: ['Does each finger take the same way down every time, from low over its place?'],
        notThis: 'Do not correct single notes: on average they are right.',
      }
  }
}

const THUMBS = {
  opposite_1: 'Where is the thumb: opposite 1, soft?',
  behind_1: 'Where is the thumb: about 25 mm behind 1, soft?',
  opposite_2: 'Where is the thumb: opposite 2, soft?',
  behind_2: 'Is the thumb behind 2, and soft?',
  between_1_and_2: 'Is the thumb between 1 and 2, and soft?',
} as const

/** Where the thumb is looked for, in the student’s school: of a hand that stands this far up, mm, or back. */
function thumbQuestion(family: FamilyId, schools: Schools, offsetMm: number): string {
  const { hold } = familyOf(family)
  if (hold === 'knees') return THUMBS[schools.thumb_cello]
  if (hold === 'standing')
    return `Is the thumb level behind ${schools.thumb_bass === 'behind_1' ? 1 : 2}, in the middle of the neck?`
  // Opposite 2 it has room to wander; a hand too far back has not wandered on.
  return schools.thumb_violin === 'opposite_2' && offsetMm > 0
    ? 'Has the thumb wandered on from opposite 2, and the hand with it?'
    : THUMBS[schools.thumb_violin]
}

function wholeHandAdvice(
  finding: Extract<Finding, { code: 'whole_hand' }>,
  { family, schools, hasTapes }: AdviceContext,
): Look {
  const tuning = finding.openStringHeard ? [] : ['Is the string in tune? Nobody has read the open string.']
  const tape = hasTapes ? ['Has the tape crept? Measure it from the nut.'] : []
  return {
    checkFirst: [...tuning, ...tape, thumbQuestion(family, schools, finding.offsetMm)],
    notThis: 'Leave the fingers’ spacing alone: it is right.',
  }
}

function frameAdvice(finding: Extract<Finding, { code: 'frame' }>, { family, schools }: AdviceContext): Look {
  if (finding.errorMm > 0)
    return {
      checkFirst: ['Is the instrument the right size?', 'Is the hand pushed open, the knuckles flat?'],
      notThis: 'Do not hold the spread by force.',
    }
  if (finding.where === 'first')
    return {
      checkFirst: [
        familyOf(family).hold === 'knees'
          ? 'Does 1 reach back by turning the forearm, or by pinching?'
          : 'Is 1 pulled up towards 2, or jammed against the neck?',
      ],
      notThis: 'Do not push 2, 3 and 4 up instead.',
    }
  const onShoulder = [
    'Is the elbow under the string played?',
    schools.contact === 'base_of_1'
      ? 'Is the hand up, the base of 1 beside the board?'
      : 'Is the hand up, so that the tips alone touch?',
  ]
  const looks: Record<HoldId, readonly string[]> = {
    shoulder: onShoulder,
    knees: ['Is the thumb’s base joint soft?', 'Are the fingers rounded, the hand square to the string?'],
    standing: [
      'Is the elbow off the body and the hand square to the neck?',
      `Does the thumb stand behind ${schools.thumb_bass === 'behind_1' ? 1 : 2}?`,
    ],
  }
  return {
    checkFirst: looks[familyOf(family).hold],
    notThis: `Do not stretch ${finding.toFinger} upwards; ${giveWay(family)}.`,
  }
}

/** What the setup says to a verdict. */
export interface SetupEvidence {
  /** What was not right when it was last looked at and may be behind it; empty where nothing was. */
  readonly seen: string
  /** The item to look at first; undefined where none bears on it. */
  readonly lookFirst: string | undefined
}

/** What was seen in the setup that goes with this verdict, and where to look first: at what was “no”, then “nearly”, then unseen. */
export function setupEvidence(
  verdict: KeptVerdict,
  family: FamilyId,
  setup: SetupNow | null,
  arrangement?: SetupArrangement,
): SetupEvidence {
  const ids = roundItems(family, arrangement).map(({ id }) => id)
  const behind: readonly string[] = itemsBehind(verdict, family, ids)
  const standings = (setup?.standings ?? []).filter(({ itemId }) => behind.includes(itemId))
  const rank = { no: 0, nearly: 1, yes: 2 } as const
  const seen = [...standings].sort((a, b) => rank[a.answer] - rank[b.answer])
  const first = seen[0]?.itemId ?? behind[0]
  const words = seen.map(
    ({ itemId, answer }) => `${setupName(itemId)} ${answer === 'no' ? 'not yet' : 'nearly'}`,
  )
  return {
    seen: setup && words.length > 0 ? `Setup of ${shortDay(setup.takenAt)}: ${listed(words)}.` : '',
    lookFirst: first && setupName(first),
  }
}
