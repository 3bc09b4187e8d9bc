import {
  itemsBehind,
  roundItems,
  USUAL_SCHOOLS,
  type FamilyId,
  type Finding,
  type Schools,
  type SetupArrangement,
} from '#core'
import type { KeptVerdict, SetupNow } from '#contracts'
import { shortDay } from './dates'
import { setupName } from './setup-names'
import { labelOfName } from './notes'
import { positionNamed } from './patterns'
import { fingerName } from './trade'
import { count, inUnit, length, listed, sharpOrFlat } from './numbers'

/** The verdict in one sentence, with its numbers. */
export function verdictSentence(verdict: KeptVerdict): string {
  switch (verdict.outcome) {
    case 'not_enough_notes':
      return notEnough(verdict)
    case 'string_out_of_tune': {
      const string = verdict.string ? `The open ${labelOfName(verdict.string)} string` : 'The open string'
      return `${string} is ${sharpOrFlat(verdict.cents)}: tune it, then read the hand again.`
    }
    case 'in_tune': {
      const { finger, meanCents } = verdict.worst
      const most =
        Math.round(meanCents) === 0
          ? 'every finger is on its place'
          : `at most ${sharpOrFlat(meanCents)}, on ${finger}`
      return `The hand stands in tune: ${most}.`
    }
    case 'several':
      return `More than one thing is off: ${listed(verdict.findings.map(offFinger))}.`
    default: {
      const [first, second] = verdict.findings
      if (!first) return 'Nothing was found.'
      return second
        ? `${findingClause(first)}, and ${lowerFirst(findingClause(second))}.`
        : `${findingClause(first)}${rest(first)}.`
    }
  }
}

/** What else the same notes would allow, or an empty string. */
export function alternativeSentence(verdict: KeptVerdict): string {
  if (verdict.outcome === 'not_enough_notes') {
    const maybe = verdict.maybe ?? []
    if (maybe.length === 0) return ''
    return `It may be: ${maybe.map((f) => lowerFirst(findingClause(f))).join('; or ')}.`
  }
  if (!('alternatives' in verdict) || verdict.alternatives.length === 0) return ''
  return `These notes would also allow: ${verdict.alternatives.map((f) => lowerFirst(findingClause(f))).join('; or ')}. Read the hand once more to tell.`
}

/** The uncertainty of the main finding, in words. */
export function certainty(verdict: KeptVerdict): string {
  const finding = 'findings' in verdict ? verdict.findings[0] : undefined
  if (!finding) return ''
  if (finding.code === 'scatter')
    return `at least ${Math.round(finding.leastCents)} cents, nineteen times in twenty.`
  if (finding.code === 'string') {
    const [low, high] = around(finding.cents, finding.plusMinusCents)
    return `${Math.round(low)} to ${Math.round(high)} cents, nineteen times in twenty.`
  }
  const [low, high] = around(sizeMm(finding), finding.plusMinusMm)
  return `${inUnit(low)} to ${length(high)}, nineteen times in twenty.`
}

function around(size: number, plusMinus: number): readonly [number, number] {
  return [Math.max(0, Math.abs(size) - plusMinus), Math.abs(size) + plusMinus]
}

function sizeMm(finding: Exclude<Finding, { code: 'scatter' | 'string' }>): number {
  if ('errorMm' in finding) return finding.errorMm
  return 'shortMm' in finding ? finding.shortMm : finding.offsetMm
}

function notEnough({
  fingersHeard: heard,
  fingersNeeded: needed,
  more,
}: Extract<KeptVerdict, { outcome: 'not_enough_notes' }>): string {
  if (heard.length >= needed && more)
    return `Not enough notes yet: about ${count(more, 'note')} more on these fingers would tell.`
  if (heard.length === 0) return `Not enough notes yet: read ${needed} fingers on this string.`
  const missing = needed - heard.length
  return `Not enough notes yet: ${listed(heard)} heard; ${missing === 1 ? 'one more finger tells' : `${missing} more fingers tell`}.`
}

function findingClause(finding: Finding): string {
  switch (finding.code) {
    case 'whole_hand': {
      const far = finding.offsetMm > 0 ? 'up the board, sharp' : 'back towards the nut, flat'
      const where = finding.positionId ? ` in ${positionNamed(finding.positionId)}` : ''
      return `The whole hand sits ${length(Math.abs(finding.offsetMm))} too far ${far}${where}`
    }
    case 'frame': {
      const width = `The frame is ${length(Math.abs(finding.errorMm))} ${finding.errorMm > 0 ? 'wide' : 'narrow'}`
      const shown = `the ${fingerName(finding.shownBy)}`
      return finding.where === 'across'
        ? `${width}: the error grows from finger to finger, to ${sharpOrFlat(finding.cents)} on ${finding.shownBy}`
        : `${width}: ${shown} lands ${sharpOrFlat(finding.cents)}`
    }
    case 'finger':
      return `The ${fingerName(finding.finger)} lands ${length(Math.abs(finding.offsetMm))} ${finding.offsetMm > 0 ? 'too high' : 'too low'}, ${sharpOrFlat(finding.cents)}`
    case 'steps': {
      const [half, whole] = finding.errorMm > 0 ? ['wide', 'narrow'] : ['narrow', 'wide']
      return `Half steps are ${length(Math.abs(finding.errorMm))} too ${half}, whole steps too ${whole}`
    }
    case 'locked_thumb':
      return `From 1 to 2 is wide and from 2 to 3 narrow: 2 stands ${length(finding.offsetMm)} too high`
    case 'elbow':
      return `The hand falls short on the lowest strings: there the ${fingerName(finding.finger)} lands ${sharpOrFlat(finding.cents)}`
    case 'pinched':
      return `The extended 1 is pinched ${length(finding.offsetMm)} up towards the others`
    case 'dragged':
      return `2, 3 and 4 have gone ${length(finding.offsetMm)} back with the extended 1`
    case 'creep':
      return `The hand creeps ${length(Math.abs(finding.offsetMm))} ${finding.offsetMm > 0 ? 'up the board' : 'back towards the nut'} from the first note to the last, to ${sharpOrFlat(finding.cents)}`
    case 'string':
      return `Everything on the ${labelOfName(finding.string)} string is ${sharpOrFlat(finding.cents)}, and nobody has read the open string`
    case 'scatter':
      return `The fingers are right on average and land differently every time: one note scatters by ${Math.round(finding.cents)} cents`
  }
}

/** What stands beside the one thing that is off. */
function rest(finding: Finding): string {
  if (finding.code === 'whole_hand') return '; the fingers stand rightly to each other'
  return finding.code === 'finger' || (finding.code === 'frame' && finding.where !== 'across')
    ? '; the others stand well'
    : ''
}

function offFinger(finding: Finding): string {
  if (finding.code !== 'finger') return lowerFirst(findingClause(finding))
  return `${finding.finger} ${sharpOrFlat(finding.cents)}`
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}

/** What to look at, what to try, and what not to do. Common practice, no source. */
export interface Advice {
  readonly checkFirst: readonly string[]
  readonly thenTry: readonly string[]
  readonly notThis: string
}

const GENTLE =
  'Stop at any pain, numbness or tingling, rest, and ask a doctor or a physiotherapist who treats players.'

/** Advice on the weightiest finding; undefined when there is nothing to work on. */
export function adviceOn(
  verdict: KeptVerdict,
  family: FamilyId,
  schools: Schools = USUAL_SCHOOLS,
): Advice | undefined {
  if (verdict.outcome === 'string_out_of_tune')
    return {
      checkFirst: ['Tune all the strings: a drifting peg spoils every place.'],
      thenTry: ['Read the open string once more, then the fingers.'],
      notThis: 'These notes say nothing about the hand yet.',
    }
  const finding = 'findings' in verdict ? verdict.findings[0] : undefined
  if (!finding) return undefined
  if (finding.code === 'whole_hand') return wholeHandAdvice(finding, family, schools)
  if (finding.code === 'frame') return frameAdvice(finding, family)
  if (finding.code !== 'finger') return adviceOnHand(finding, family, schools)
  return {
    checkFirst: [
      schools.waiting_fingers === 'hover'
        ? `Does the ${fingerName(finding.finger)} drop from above its place, the others hovering?`
        : `Does the ${fingerName(finding.finger)} come from rest, quick, without pressing after?`,
    ],
    thenTry: [
      `A drill of a few notes for ${finding.finger} alone, slow drops, aimed at the other side of the mistake.`,
    ],
    notThis: `Do not move the tape to the finger. ${GENTLE}`,
  }
}

/** Handbook §7 and 8, row by row. */
function adviceOnHand(
  finding: Exclude<Finding, { code: 'whole_hand' | 'frame' | 'finger' }>,
  family: FamilyId,
  schools: Schools,
): Advice {
  switch (finding.code) {
    case 'steps':
      return {
        checkFirst: [
          finding.errorMm > 0
            ? 'Do the fingers of a half step touch, or nearly?'
            : 'Do the fingers of a whole step part?',
        ],
        thenTry: ['The pattern silently on one string, then plucked, then bowed.'],
        notThis: `Leave the whole hand where it is: it stands well. ${GENTLE}`,
      }
    case 'locked_thumb':
      return {
        checkFirst: ['Is the thumb soft at all three joints, the base joint above all?'],
        thenTry: [
          'Thumb off the neck while playing; an even, quick trill as the test.',
          'Thumb circles on the neck.',
        ],
        notThis: `Do not press 2 back by force. ${GENTLE}`,
      }
    case 'elbow':
      return {
        checkFirst: [
          family === 'violin' || family === 'viola'
            ? 'Does the elbow swing further under for the lower strings?'
            : 'Does the elbow come along when the hand goes to the lower strings?',
        ],
        thenTry: [
          'Swing the elbow string by string, the hand still, then play.',
          'Move the arm while holding one pitch.',
        ],
        notThis: `Never force the elbow round. ${GENTLE}`,
      }
    case 'pinched':
      return {
        checkFirst: ['Does 1 reach back by turning the forearm, or by pinching?'],
        thenTry: ['Extended 1 lifted and dropped, the thumb still.'],
        notThis: `Do not spread by force. ${GENTLE}`,
      }
    case 'dragged':
      return {
        checkFirst: ['Do the thumb and 2 stay where they are when 1 reaches back?'],
        thenTry: ['Place 2 and the thumb, then turn the forearm and drop 1 back.'],
        notThis: `Do not move the hand to the note of 1. ${GENTLE}`,
      }
    case 'creep':
      return {
        checkFirst: ['Is the string in tune still at the end?', thumbQuestion(family, schools)],
        thenTry: ['Stop between the notes; bring the hand back to the first tape each time.'],
        notThis: `Leave the fingers’ spacing alone: it is right. ${GENTLE}`,
      }
    case 'string':
      return {
        checkFirst: ['Play the open string: is it in tune?'],
        thenTry: ['Tune it, then play the exercise once more.'],
        notThis: 'These notes say nothing about the hand on that string yet.',
      }
    case 'scatter':
      return {
        checkFirst: ['Does each finger take the same way down every time, from low over its place?'],
        thenTry: ['Slow controlled drops, guided all the way; few notes, one string.'],
        notThis: `Do not correct single notes: on average they are right. ${GENTLE}`,
      }
  }
}

const THUMBS = {
  opposite_1: 'Where is the thumb: opposite 1, soft?',
  behind_1: 'Where is the thumb: about 25 mm behind 1, soft?',
  opposite_2: 'Has the thumb wandered on from opposite 2, and the hand with it?',
  behind_2: 'Is the thumb behind 2, and soft?',
  between_1_and_2: 'Is the thumb between 1 and 2, and soft?',
} as const

/** Where the thumb is looked for, in the student’s school. */
function thumbQuestion(family: FamilyId, schools: Schools): string {
  if (family === 'cello') return THUMBS[schools.thumb_cello]
  if (family !== 'bass') return THUMBS[schools.thumb_violin]
  return `Is the thumb level behind ${schools.thumb_bass === 'behind_1' ? 1 : 2}, in the middle of the neck?`
}

function wholeHandAdvice(
  finding: Extract<Finding, { code: 'whole_hand' }>,
  family: FamilyId,
  schools: Schools,
): Advice {
  const tuning = finding.openStringHeard ? [] : ['Is the string in tune? Nobody has read the open string.']
  const thumb = thumbQuestion(family, schools)
  return {
    checkFirst: [...tuning, 'Has the tape crept? Measure it from the nut.', thumb],
    thenTry: [
      finding.offsetMm > 0
        ? 'Open and 1, stopping between notes; bring the hand back to the first tape each time.'
        : 'Open and 1, about twenty times, aiming past the middle of the tape.',
    ],
    notThis: `Leave the fingers’ spacing alone: it is right. ${GENTLE}`,
  }
}

function frameAdvice(finding: Extract<Finding, { code: 'frame' }>, family: FamilyId): Advice {
  if (finding.errorMm > 0)
    return {
      checkFirst: ['Is the instrument the right size?', 'Is the hand pushed open, the knuckles flat?'],
      thenTry: ['A smaller shape: place the fingers silently, then pluck, then bow.'],
      notThis: `Do not hold the spread by force. ${GENTLE}`,
    }
  if (finding.where === 'first')
    return {
      checkFirst: [
        family === 'cello'
          ? 'Does 1 reach back by turning the forearm, or by pinching?'
          : 'Is 1 pulled up towards 2, or jammed against the neck?',
      ],
      thenTry: ['Lift and drop 1 alone, thumb and the other fingers still.'],
      notThis: `Do not push 2, 3 and 4 up instead. ${GENTLE}`,
    }
  const looks: Record<FamilyId, readonly string[]> = {
    violin: ['Is the elbow under the string played?', 'Is the hand up, the base of 1 beside the board?'],
    viola: ['Is the elbow under the string played?', 'Is the hand up, the base of 1 beside the board?'],
    cello: ['Is the thumb’s base joint soft?', 'Are the fingers rounded, the hand square to the string?'],
    bass: [
      'Is the elbow off the body and the hand square to the neck?',
      'Does the thumb stand behind 1 or 2?',
    ],
  }
  return {
    checkFirst: looks[family],
    thenTry:
      family === 'violin' || family === 'viola'
        ? [
            'Find the elbow: place 1 to 4 in tune held low, keep the hand, bring it up.',
            'Fourth finger against the next open string.',
          ]
        : ['Silent pattern on one string, half a minute at a time, then plucked, then bowed.'],
    notThis: `Do not stretch ${finding.toFinger} upwards; let 1 reach back. ${GENTLE}`,
  }
}

/** `6 notes, 2 of each finger` is the evidence a verdict rests on. */
export function evidence(noteCount: number): string {
  return `${count(noteCount, 'note')} read`
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
