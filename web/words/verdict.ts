import type { Finding } from '#core'
import type { Check, CheckSummary, KeptVerdict, VerdictCounts } from '#contracts'
import { shortDay } from './dates'
import { labelOfName } from './notes'
import { positionNamed } from './positions'
import { fingerName } from './trade'
import { count, length, listed, sharpOrFlat } from './numbers'

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
    case 'tape_misplaced':
      return tapesSentence(verdict)
    case 'other_exercise':
      return otherExerciseSentence(verdict)
    case 'matched':
      return matched(verdict)
    case 'several':
      return `More than one thing is off: ${listed(verdict.findings.map(offFinger))}.`
    default: {
      const [first, second] = verdict.findings
      if (!first) return 'Nothing was found.'
      // Both outer fingers: one frame cannot be narrow and wide.
      if (first.code === 'frame' && second?.code === 'frame')
        return `The ${outer(first)}, and the ${outer(second)}.`
      return second
        ? `${withAnother(first, second)}, and ${lowerFirst(withAnother(second, first))}.`
        : `${findingClause(first)}${rest(first)}.`
    }
  }
}

function otherExerciseSentence({
  finger,
  with: others = [],
  string,
  halfSteps,
}: Extract<KeptVerdict, { outcome: 'other_exercise' }>): string {
  const on = string ? ` on the ${labelOfName(string)} string` : ''
  const away = `a half step ${halfSteps > 0 ? 'higher' : 'lower'} than asked`
  if (finger === null)
    return string
      ? `Everything${on} was ${away}, the rest as asked: another position there, or is the string tuned so?`
      : `Everything was ${away}: another position, another key, or strings tuned so?`
  const played =
    others.length > 0
      ? `${listed([finger, ...others].map(String))} were played`
      : `The ${fingerName(finger)} was played`
  return `${played} ${away}${on}, the others as asked: another pattern?`
}

type TapeSaid = Pick<
  Extract<KeptVerdict, { outcome: 'tape_misplaced' }>,
  'finger' | 'tapeMm' | 'placeMm' | 'cents'
>

const tapeLies = ({ tapeMm, placeMm }: TapeSaid) => length(Math.abs(tapeMm - placeMm))
const tapeSide = ({ cents }: TapeSaid) => (cents > 0 ? 'up the board' : 'towards the nut')

function tapesSentence({
  others = [],
  ...tape
}: Extract<KeptVerdict, { outcome: 'tape_misplaced' }>): string {
  if (others.length === 0) return `${tapeClause(tape)}.`
  const all = [tape, ...others].sort((a, b) => a.placeMm - b.placeMm)
  const areAlike = all.every(({ cents }) => Math.sign(cents) === Math.sign(tape.cents))
  const fingers = listed(all.map(({ finger }) => String(finger)))
  const far = listed([...new Set(all.map(tapeLies))])
  return areAlike
    ? `The tapes of ${fingers} lie ${far} too far ${tapeSide(tape)}, and the fingers follow them.`
    : `The tapes of ${fingers} lie in wrong places, and the fingers follow them: ${listed(all.map((one) => sharpOrFlat(one.cents)))}.`
}

function tapeClause(tape: TapeSaid): string {
  return `${tapeFollowed(tape)}: ${sharpOrFlat(tape.cents)}`
}
function tapeFollowed(tape: TapeSaid): string {
  return `The tape of the ${fingerName(tape.finger)} lies ${tapeLies(tape)} too far ${tapeSide(tape)}, and the finger follows it`
}

function matched({ of, cents, isOff }: Extract<KeptVerdict, { outcome: 'matched' }>): string {
  const partner = of === 'fourth' ? 'the open string' : 'the octave of 1'
  if (isOff === null) return `Not enough notes yet: 4 against ${partner} once or twice more would tell.`
  return isOff
    ? `4 is ${sharpOrFlat(cents)} against ${partner}.`
    : `4 meets ${partner}${Math.round(cents) === 0 ? '' : `, ${sharpOrFlat(cents)}`}.`
}

/** More of them are counted. */
const STRAYS_SAID = 4

/** What is heard beside where the fingers land, each a sentence; at last, what was left out. */
export function besideSentences({ beside = [], strays = [] }: KeptVerdict): string[] {
  const left = strays
    .slice(0, STRAYS_SAID)
    .map(({ finger, string, cents }) => `${finger} on ${labelOfName(string)}, ${sharpOrFlat(cents)}`)
  if (strays.length > STRAYS_SAID) left.push(`${strays.length - STRAYS_SAID} more`)
  return [
    ...beside.map((finding) => `${findingClause(finding)}.`),
    ...(left.length > 0 ? [`Left out, far from its like: ${left.join('; ')}.`] : []),
  ]
}

/** Whether it is the same every time: bias and scatter told apart; empty where notes are too few to say. */
export function steadiness({ scatter }: KeptVerdict, toleranceCents: number): string {
  if (!scatter) return ''
  const each = count(Math.round(scatter.cents), 'cent')
  if (scatter.highCents < toleranceCents) return `Steady: each finger lands within about ${each} of itself.`
  if (scatter.lowCents > toleranceCents)
    return `Not steady yet: a finger lands about ${each} from where it landed before.`
  return `Steady or not cannot be told yet: so far about ${each} from note to note.`
}

/** What earlier takes had to say to it; empty where none had. */
export function earlierSentence({ earlier }: KeptVerdict): string {
  if (!earlier) return ''
  const days = Math.round(earlier.daysAgo)
  const when = days === 0 ? 'from today' : `the newest ${count(days, 'day')} old`
  return `${count(earlier.count, 'earlier take')} of this hand, ${when}, ${earlier.count === 1 ? 'counts' : 'count'} for ${Math.round(100 * earlier.share)} % of what was expected.`
}

/** What is to be worked on, as a verdict would say it: its findings, the weightiest first. */
export function workSuggestions(verdict: KeptVerdict): string[] {
  const found = 'findings' in verdict ? [...verdict.findings, ...verdict.alternatives] : []
  return [...found, ...(verdict.beside ?? [])].map(workOf)
}

function workOf(finding: Finding): string {
  switch (finding.code) {
    case 'whole_hand':
      return 'The place of the hand'
    case 'frame':
      return finding.errorMm > 0 ? 'A smaller frame' : 'A frame as wide as it should be'
    case 'finger':
      return `The aim of the ${fingerName(finding.finger)}`
    case 'dull':
      return `A ${fingerName(finding.finger)} that clears its neighbour string`
    case 'wobble':
      return `A ${fingerName(finding.finger)} that stands`
    default:
      return WORKS[finding.code]
  }
}

const WORKS: Readonly<
  Record<Exclude<Finding['code'], 'whole_hand' | 'frame' | 'finger' | 'wobble' | 'dull'>, string>
> = {
  steps: 'Half steps that touch, whole steps that part',
  locked_thumb: 'A soft thumb',
  elbow: 'The elbow’s swing to the lowest strings',
  pinched: 'Extension by turning the forearm',
  dragged: 'Thumb and 2 that stay in extension',
  creep: 'A hand that stays where it begins',
  string: 'Tuning before playing',
  scatter: 'Slow, guided drops',
  ear_repairs: 'Landing before listening',
  vibrato: 'Vibrato from the note downwards',
  without_tapes: 'Playing without looking at the tapes',
  tape: 'Tapes laid anew',
  place: 'One note, from its neighbours',
}

/** Kinds of verdict as they are counted. */
export const TOLD: Readonly<Record<string, string>> = {
  whole_hand: 'Whole hand off',
  frame: 'Frame wide or narrow',
  finger: 'One finger off',
  steps: 'Half and whole steps',
  locked_thumb: 'Thumb locked',
  elbow: 'Elbow',
  pinched: 'Extension pinched',
  dragged: 'Hand gone back',
  creep: 'Hand creeping',
  string: 'A string unread',
  scatter: 'Scatter',
  in_tune: 'In tune',
  not_enough_notes: 'Not enough notes',
  string_out_of_tune: 'String out of tune',
  tape_misplaced: 'Tape in the wrong place',
  tape: 'Tape in the wrong place',
  place: 'One note off',
  other_exercise: 'Another pattern',
  matched: 'Two notes matched',
}

/** What became of verdicts within a tolerance; empty where nobody said anything to one. */
export function countsSentence(counts: VerdictCounts, toleranceCents: number): string {
  const own = counts.filter((row) => row.toleranceCents === toleranceCents)
  // Added up here: for two sums the first page would carry all of d3-array.
  const all = (of: 'accepted' | 'overruled' | 'tooStrict') => own.reduce((sum, row) => sum + row[of], 0)
  const [accepted, overruled, tooStrict] = [all('accepted'), all('overruled'), all('tooStrict')]
  if (accepted + overruled === 0) return ''
  const strict = tooStrict > 0 ? `, ${tooStrict} of them as too strict` : ''
  return `Within ${toleranceCents} cents ${count(accepted, 'verdict')} accepted and ${overruled} overruled${strict}, by everybody here.`
}

/** Why a verdict is overruled. */
export const OVERRULE_REASONS = {
  seen_otherwise: 'I saw it otherwise',
  instrument: 'It was the instrument',
  tape: 'It was a tape',
  other_notes: 'Other notes were played',
  too_strict: 'The tolerance is too strict',
  other: 'Something else',
} as const

/** What stands of a check: the teacher’s words before the tool’s, and no finding that was overruled. */
export function checkSentence({ verdict, decision }: Pick<CheckSummary, 'verdict' | 'decision'>): string {
  if (decision?.sentence) return decision.sentence
  if (decision?.says !== 'overruled') return verdictSentence(verdict)
  return `Overruled (${OVERRULE_REASONS[decision.reason ?? 'other'].replace(/^[A-Z](?=[a-z])/, (c) => c.toLowerCase())}): ${lowerFirst(verdictSentence(verdict))}`
}

/** What the check says by the lengths that were measured later; empty where they are the same. */
export function rejudgedSentence({ rejudged, verdict }: Pick<Check, 'rejudged' | 'verdict'>): string {
  if (!rejudged) return ''
  const [before, now] = [verdict, rejudged.verdict].map(verdictSentence)
  const says = before === now ? 'the verdict stands.' : `by that length, ${lowerFirst(now!)}`
  const { lengthsMm, measuredOn } = rejudged
  const meanMm = lengthsMm.reduce((sum, mm) => sum + mm, 0) / Math.max(1, lengthsMm.length)
  return `Measured again on ${shortDay(measuredOn)}, ${length(meanMm)}: ${says}`
}

/** What else the same notes would allow, or an empty string. */
export function alternativeSentence(verdict: KeptVerdict): string {
  if (verdict.outcome === 'not_enough_notes') {
    const maybe = clausesOf(verdict.maybe ?? [])
    if (verdict.leans) return maybe.length < 2 ? '' : `Or it may be: ${maybe.slice(1).join('; or ')}.`
    return maybe.length === 0 ? '' : `It may be: ${maybe.join('; or ')}.`
  }
  if (!('alternatives' in verdict)) return ''
  const told = clausesOf(verdict.findings)
  const others = clausesOf(verdict.alternatives).filter((clause) => !told.includes(clause))
  return others.length === 0
    ? ''
    : `These notes would also allow: ${others.join('; or ')}. Read the hand once more to tell.`
}

/** In the middle of a sentence, what reads alike once. */
function clausesOf(findings: readonly Finding[]): string[] {
  return [...new Set(findings.map((finding) => lowerFirst(findingClause(finding))))]
}

/** How sure the size of the main finding is: nineteen times in twenty it lies within. */
export function certainty(verdict: KeptVerdict): string {
  if (verdict.outcome === 'matched')
    return `sure to within ${count(Math.round(verdict.plusMinusCents), 'cent')}.`
  const finding = 'findings' in verdict ? verdict.findings[0] : undefined
  if (!finding) return ''
  if (finding.code === 'scatter') return `surely more than ${count(Math.round(finding.leastCents), 'cent')}.`
  if (finding.code === 'string' || finding.code === 'place')
    return around(finding.cents, finding.plusMinusCents)[0] > 0
      ? `sure to within ${count(Math.round(finding.plusMinusCents), 'cent')}.`
      : `how far is hardly known yet: up to ${count(Math.round(around(finding.cents, finding.plusMinusCents)[1]), 'cent')}.`
  if (!('plusMinusMm' in finding)) return ''
  const [low, high] = around(sizeMm(finding), finding.plusMinusMm)
  // Words of an eye tell a side, and hardly how far.
  return low > 0
    ? `sure to within ${length(finding.plusMinusMm)}.`
    : `how far is hardly known yet: up to ${length(high)}.`
}

function around(size: number, plusMinus: number): readonly [number, number] {
  return [Math.max(0, Math.abs(size) - plusMinus), Math.abs(size) + plusMinus]
}

function sizeMm(finding: Extract<Finding, { plusMinusMm: number }>): number {
  if ('errorMm' in finding) return finding.errorMm
  return 'shortMm' in finding ? finding.shortMm : finding.offsetMm
}

function notEnough({
  fingersHeard: heard,
  fingersNeeded: needed,
  more,
  moreTo,
  unheard = [],
  maybe = [],
  leans,
}: Extract<KeptVerdict, { outcome: 'not_enough_notes' }>): string {
  if (unheard.length > 0)
    return `In tune as far as it was heard. Nothing sure was heard of ${listed(unheard)}: play ${unheard.length === 1 ? 'it' : 'them'} once more.`
  const likely = leans ? maybe[0] : undefined
  if (likely && heard.length >= needed)
    return `So far it looks as if ${lowerFirst(findingClause(likely))}. ${more ? `About ${moreNotes(more, moreTo)} more on these fingers would tell.` : 'More notes today would hardly tell: look again in another lesson.'}`
  if (heard.length >= needed && more)
    return `Not enough notes yet: about ${moreNotes(more, moreTo)} more on these fingers would tell.`
  if (heard.length >= needed)
    return 'Not enough notes yet, and more of them today would hardly tell: look again in another lesson.'
  if (heard.length === 0) return `Not enough notes yet: read ${needed} fingers on this string.`
  const missing = needed - heard.length
  return `Not enough notes yet: ${listed(heard)} heard; ${missing === 1 ? 'one more finger tells' : `${missing} more fingers tell`}.`
}

function moreNotes(more: number, moreTo: number | undefined): string {
  return moreTo && moreTo > more ? `${more} to ${count(moreTo, 'note')}` : count(more, 'note')
}

function findingClause(finding: Finding): string {
  switch (finding.code) {
    case 'whole_hand': {
      const far = finding.offsetMm > 0 ? 'up the board, sharp' : 'back towards the nut, flat'
      const where = finding.positionId ? ` in ${positionNamed(finding.positionId)}` : ''
      return `The whole hand sits ${length(Math.abs(finding.offsetMm))} too far ${far}${where}`
    }
    case 'frame': {
      const heard = `the ${fingerName(finding.shownBy)} lands ${sharpOrFlat(finding.cents)}`
      return finding.where === 'across'
        ? `${frameIs(finding)}, a little more with every finger: ${heard}`
        : `${frameIs(finding)}: ${heard}`
    }
    case 'finger':
      return `The ${fingerName(finding.finger)} lands ${length(Math.abs(finding.offsetMm))} ${finding.offsetMm > 0 ? 'too high' : 'too low'}, ${sharpOrFlat(finding.cents)}`
    case 'steps': {
      const [half, whole] = finding.errorMm > 0 ? ['wide', 'narrow'] : ['narrow', 'wide']
      const far = length(Math.abs(finding.errorMm))
      const { halves = [], wholes = [] } = finding
      if (halves.length === 0 || wholes.length === 0)
        return `Half steps are ${far} too ${half}, whole steps too ${whole}`
      const [near, apart] = [halves, wholes].map((pairs) => listed(pairs.map((pair) => pair.join('–'))))
      return `${near} ${halves.length > 1 ? 'are' : 'is'} ${far} too ${half}, ${apart} too ${whole}`
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
    case 'ear_repairs':
      return `The ear repairs what the hand misses: notes begin ${Math.round(finding.landedCents)} cents off and end ${Math.round(finding.settledCents)} off`
    case 'wobble':
      return `Under the ${fingerName(finding.finger)} a held note wobbles by ${Math.round(finding.cents)} cents`
    case 'dull':
      return `The ${fingerName(finding.finger)} sounds dull beside the others, ${Math.round(finding.lessDb)} dB less bright: its tone does not ring`
    case 'vibrato':
      return `The vibrato swings ${Math.round(finding.aboveCents)} cents above the note`
    case 'without_tapes':
      return `Without its tape the ${fingerName(finding.finger)} is ${sharpOrFlat(finding.cents)}, and with it ${Math.round(finding.seenCents) === 0 ? 'right' : sharpOrFlat(finding.seenCents)}`
    case 'place':
      return `On the ${labelOfName(finding.string)} string the ${fingerName(finding.finger)}, ${labelOfName(finding.note)}, lands ${sharpOrFlat(finding.cents)} ${finding.count === 2 ? 'both times' : `all ${finding.count} times`}`
    case 'tape':
      return `${tapeFollowed(finding)}. The tape alone makes it ${sharpOrFlat(finding.cents)}`
    case 'scatter':
      return `The fingers are right on average and land differently every time: one note scatters by ${Math.round(finding.cents)} cents`
  }
}

/** One of two things that are off: what is heard of a finger is of both together, so each is told by its own size. */
function withAnother(finding: Finding, other: Finding): string {
  if (finding.code === 'frame') return frameIs(finding)
  if (finding.code === 'finger' && ['whole_hand', 'frame', 'string', 'creep'].includes(other.code))
    return `Beside the others the ${fingerName(finding.finger)} stands ${length(Math.abs(finding.offsetMm))} too ${finding.offsetMm > 0 ? 'high' : 'low'}`
  return findingClause(finding)
}

function frameIs({ errorMm }: Extract<Finding, { code: 'frame' }>): string {
  return `The frame is ${length(Math.abs(errorMm))} too ${errorMm > 0 ? 'wide' : 'narrow'}`
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

function outer({ shownBy, cents }: Extract<Finding, { code: 'frame' }>): string {
  return `${fingerName(shownBy)} lands ${sharpOrFlat(cents)}`
}

function lowerFirst(text: string): string {
  return text.charAt(0).toLowerCase() + text.slice(1)
}

/** `6 notes, 2 of each finger` is the evidence a verdict rests on. */
export function evidence(noteCount: number): string {
  return `${count(noteCount, 'note')} read`
}
