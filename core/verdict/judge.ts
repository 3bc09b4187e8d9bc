import { deviation, greatest, group, mean, rollup, sum } from 'd3-array'
import { placeOnString, type Finger, type Stringing } from '../instrument'
import { noteName } from '../pitch'
import { chiSquare } from '../stats'
import { apartOf } from './apart'
import { besides } from './beside'
import { faultKey, type Candidate } from './candidates'
import { beliefOf } from './earlier'
import { evidenceOf, isSeen, isStray, type Evidence, type EvidenceNote } from './evidence'
import { matchOf } from './matched'
import { untunedString } from './open-strings'
import { otherPattern } from './other-exercise'
import { weighSeen } from './seen'
import { followedTapes, withoutTheseTapes, type FollowedTapes } from './tapes'
import type { FingerSummary, Finding, Judged, JudgedTake, ScatterEstimate, Verdict } from './types'
import { weigh } from './weigh'
import { believing, likelyOf, type Weighed, type Weighing } from './weighing'

/** How probable it must be that something is wrong before anybody is blamed; more where a finger’s mean is not known well. */
const FAULT = { known: 0.65, vague: 0.88, blind: 0.975 } as const
/** A finger’s mean is known well up to this part of the tolerance, one standard error of a fourth of the notes. */
const KNOWN = 0.3
/** Where it is known no better than this, a fault has to be beyond doubt; two at once, wherever a mean is not known well. */
const BLIND = 0.6
/** And of all that may be wrong the part that a named fault has to have. */
const NAMED = { known: 0.5, vague: 0.6, blind: 0.6 } as const
/** A hand is said to be well where it is so probable. */
const WELL = 0.93
/** No fault is told smaller, in tolerances. */
const SMALLEST_TOLD = 0.5
/** So probably nothing else is wrong where only the scatter is told. */
const RIGHT_ON_AVERAGE = 0.75
/** So probable beside the fault that is named, another is told with it. */
const BESIDE = 0.1
/** A first answer, marked as such, where one fault is likelier than all else together. */
const LEANS = 0.5
/** A scatter is told where nineteen in twenty say that it is beyond the tolerance. */
const SURELY = 0.05
/** So many notes more are asked for at most; beyond, another lesson tells sooner. */
const MOST_MORE = 60
/** And of a range the upper end, times the lower: from simulation, by then half of those who were asked have their answer. */
const MORE_RANGE = 2.5
const FINGERS = 4
/** Of fewer a spread is a guess. */
const LEAST_FREEDOM = 3
/** What the choice of a fault is worth, in notes, and that of a second one. From simulation. */
const CHOICE_COSTS = { first: 4, second: 5 } as const
/** With fewer fingers a hand that moved, a frame that shrank and a finger that strayed look the same. */
export const FINGERS_NEEDED = 3

/**
 * What a take says of the hand, over all its strings and positions at once: an untuned string before anything else, then another
 * pattern than was asked; then, tapes that lie wrong and are followed taken out, the one fault, or the two, that explain the notes;
 * such tapes alone; that the hand is well; or that the notes do not carry it, and about how many more would. Nothing is said from fewer than
 * three fingers.
 * Sources: what faults there are is common practice, no source; how they are weighed: {@link weigh}.
 */
export function judgeTake(take: JudgedTake): Verdict {
  return judge(take).verdict
}

/** The same, with what the take makes likely of the hand whatever was known before. */
export function judge(take: JudgedTake): Judged {
  const evidence = evidenceOf(take)
  const fingers = summaries(evidence)
  const beside = besides(take, evidence)
  const told = beside.length > 0 ? { beside } : {}
  const first = beforeTheHand(take, evidence, fingers)
  if (first)
    return {
      verdict: first.outcome === 'not_enough_notes' ? { ...first, ...told } : first,
      likely: null,
      belief: null,
    }
  const tapes = tapesOf(take, evidence)
  const hand = withoutTheseTapes(evidence, tapes.blamed, take.tapesMm ?? [])
  const { places, strays } = apartOf(hand)
  const weighing = isSeen(hand) ? weighSeen(hand, take.tapesMm ?? []) : weigh(hand)
  const belief = take.belief ?? beliefOf(take)
  const believed = belief ? believing(weighing, belief) : weighing
  return {
    verdict: {
      ...withBeside(judgeHand(hand, believed, fingers), places, tapes, beside),
      ...(strays.length > 0 && { strays }),
      scatter: scatterOf(hand, believed.scatterCents),
      ...(belief && { earlier: { count: belief.count, daysAgo: belief.daysAgo, share: belief.share } }),
    },
    likely: likelyOf(weighing),
    belief: belief ?? null,
  }
}

/** What is said before anything of the hand; undefined where the notes speak of it. */
function beforeTheHand(
  take: JudgedTake,
  evidence: Evidence,
  fingers: readonly FingerSummary[],
): Verdict | undefined {
  const { name } = take.exercise
  if (name.kind === 'fourth' || name.kind === 'octave') return matched(take, name.kind, fingers)
  const untuned = untunedString(evidence.opens)
  if (untuned)
    return {
      outcome: 'string_out_of_tune',
      cents: untuned.cents,
      string: noteName(take.stringing.tuning[untuned.stringIndex]!),
      fingers,
    }
  const other = otherPattern(evidence)
  if (other) return { outcome: 'other_exercise', ...other, fingers }
  if (fingers.length >= FINGERS_NEEDED) return undefined
  const [tape, ...others] = tapesOf(take, evidence).blamed
  return tape ? { outcome: 'tape_misplaced', ...tape, others, fingers } : notEnough(fingers, null, [])
}

function tapesOf({ tapesCovered, tapesMm = [] }: JudgedTake, evidence: Evidence): FollowedTapes {
  return followedTapes(evidence, tapesCovered ? [] : tapesMm)
}

/** So many findings are told in one sentence; what else there is, beside it. */
const TOLD_TOGETHER = 2

/**
 * What is said of a hand of which some notes are off every time, and that follows tapes to wrong places: its own fault first, these
 * beside it; or these, if it has none. No hand is in tune with notes that are off every time, nor with a tape that is to blame.
 */
function withBeside(
  hand: Verdict,
  places: readonly Finding[],
  tapes: FollowedTapes,
  heard: readonly Finding[],
): Verdict {
  const { fingers } = hand
  const told = (beside: readonly Finding[]) => (beside.length > 0 ? { beside } : {})
  const asFindings = tapes.told.map((one) => ({ code: 'tape' as const, ...one }))
  if (hand.outcome === 'explained') return { ...hand, ...told([...places, ...asFindings, ...heard]) }
  const isWell = hand.outcome === 'in_tune' || (hand.outcome === 'not_enough_notes' && hand.unheard)
  if (places.length > 0 && isWell)
    return {
      outcome: 'explained',
      findings: places.slice(0, TOLD_TOGETHER),
      alternatives: [],
      fingers,
      ...told([...places.slice(TOLD_TOGETHER), ...asFindings, ...heard]),
    }
  const [tape, ...others] = tapes.blamed
  if (tape) return { outcome: 'tape_misplaced', ...tape, others, fingers, ...told([...places, ...heard]) }
  return { ...hand, ...told([...places, ...asFindings, ...heard]) }
}

function judgeHand(evidence: Evidence, weighing: Weighing, fingers: readonly FingerSummary[]): Verdict {
  const { explanations, scatterCents } = weighing
  const [first] = explanations
  const well = sum(explanations, (one) => (one.candidates.length === 0 ? one.probability : 0))
  const count = sum(evidence.notes, ({ weight }) => weight)
  // Whatever is named was chosen among many: it has taken some of the scatter with it.
  const costs = CHOICE_COSTS.first + (first!.candidates.length > 1 ? CHOICE_COSTS.second : 0)
  const chosen = Math.sqrt(count / Math.max(1, count - costs))
  const errorCents = (chosen * scatterCents) / Math.sqrt(count / FINGERS)
  const tolerances = errorCents / evidence.toleranceCents
  const known = tolerances <= KNOWN ? 'known' : tolerances <= BLIND ? 'vague' : 'blind'
  const faults = faultsOf(weighing)
  const named = namedOf(faults, NAMED[known])
  const others = faults.filter((one) => one !== named)
  const least = FAULT[known !== 'known' && named && named.candidates.length > 1 ? 'blind' : known]
  const told = (one: Weighed) => findingsOf(evidence, weighing, one.candidates, least * NAMED[known])
  // On average in tune, and no note of it is: that is no hand that stands in tune.
  const scatter = well >= RIGHT_ON_AVERAGE ? scatterFinding(evidence, scatterCents) : undefined
  if (scatter) return { outcome: 'explained', findings: [scatter], alternatives: [], fingers }
  const unheard = unheardOf(evidence)
  if (well >= WELL && first!.candidates.length === 0 && unheard.length > 0)
    return { ...notEnough(fingers, null, []), unheard }
  if (well >= WELL && first!.candidates.length === 0)
    return {
      outcome: 'in_tune',
      worst: greatest(fingers, (f) => Math.abs(f.meanCents))!,
      fingers,
    }
  if (named && 1 - well >= least)
    return {
      outcome: 'explained',
      findings: told(named),
      alternatives: others
        .filter(({ candidates: [other, more], probability }) => {
          // What is told already is no other explanation.
          const isTold = named.candidates.some((one) => one.kind.id === other!.kind.id)
          return !more && !isTold && probability > BESIDE * (1 - well)
        })
        .flatMap(told),
      fingers,
    }
  const notesTo = (wanted: number) => weighing.reckons.more(weighing, wanted / (1 - wanted))
  const untilKnown = count * ((errorCents / (KNOWN * evidence.toleranceCents)) ** 2 - 1)
  const more =
    first!.candidates.length === 0
      ? notesTo(WELL)
      : Math.min(notesTo(FAULT.vague), Math.max(notesTo(FAULT.known), Math.ceil(untilKnown)))
  const maybe = faults.filter((one) => one.candidates.length === 1 && one.probability > BESIDE).slice(0, 2)
  return {
    ...notEnough(fingers, more > MOST_MORE ? null : more, maybe.flatMap(told)),
    ...((maybe[0]?.probability ?? 0) > LEANS && { leans: true }),
  }
}

/** Two notes that are one by ear: asked of the notes alone, whatever the instrument is tuned to. */
function matched(take: JudgedTake, of: 'fourth' | 'octave', fingers: readonly FingerSummary[]): Verdict {
  const match = matchOf(take.landings.filter(({ cents }) => Number.isFinite(cents)))
  if (!match) return notEnough(fingers, 1, [])
  return { outcome: 'matched', of, ...match, fingers }
}

/** Fingers that the exercise asks for and of which nothing was read but strays: no hand is in tune by what nobody heard. */
function unheardOf({ places, notes }: Evidence): Finger[] {
  const heard = new Set(notes.filter((note) => !isStray(note)).map(({ target }) => target.finger))
  return [...new Set(places.map(({ finger }) => finger))].filter((finger) => !heard.has(finger)).sort()
}

function notEnough(
  fingers: readonly FingerSummary[],
  more: number | null,
  maybe: readonly Finding[],
): Extract<Verdict, { readonly outcome: 'not_enough_notes' }> {
  return {
    outcome: 'not_enough_notes',
    fingersHeard: fingers.map(({ finger }) => finger),
    fingersNeeded: FINGERS_NEEDED,
    more,
    ...(more !== null && { moreTo: Math.ceil(MORE_RANGE * more) }),
    maybe,
    fingers,
  }
}

/** Explanations with something wrong, ways of one fault together as the likeliest of them; the most probable first. */
function faultsOf({ explanations }: Weighing): Weighed[] {
  const byFault = group(
    explanations.filter(({ candidates }) => candidates.length > 0),
    ({ candidates }) => faultKey(candidates),
  )
  return [...byFault.values()]
    .map((ways) => ({ ...ways[0]!, probability: sum(ways, (one) => one.probability) }))
    .sort((a, b) => b.probability - a.probability)
}

/**
 * What is told of all that may be wrong: each fault that is part of more than half of it, by itself or beside another. Undefined
 * where no fault is. Source: the median probability model, M. M. Barbieri and J. O. Berger, Optimal predictive model selection,
 * Ann. Statist. 32 (2004) 870.
 */
function namedOf(faults: readonly Weighed[], least: number): Weighed | undefined {
  const all = sum(faults, ({ probability }) => probability)
  const parts = new Map<string, number>()
  for (const { candidates, probability } of faults)
    for (const { key } of candidates) parts.set(key, (parts.get(key) ?? 0) + probability)
  const told = new Set([...parts].filter(([, part]) => part >= least * all).map(([key]) => key))
  return faults.find(
    ({ candidates }) => candidates.length === told.size && candidates.every(({ key }) => told.has(key)),
  )
}

/** The candidates with their sizes, the weightiest first. */
function findingsOf(
  evidence: Evidence,
  weighing: Weighing,
  candidates: readonly Candidate[],
  bar: number,
): Finding[] {
  const sizes = weighing.reckons.sizes(weighing, candidates, bar, SMALLEST_TOLD * evidence.toleranceCents)
  return candidates
    .map(({ kind, perCent }, k) => ({
      cents: sizes[k]!.cents,
      finding: kind.describe(sizes[k]!.cents * perCent, sizes[k]!.plusMinusCents * Math.abs(perCent)),
    }))
    .sort((a, b) => b.cents - a.cents)
    .map(({ finding }) => asHeard(evidence, finding))
}

/**
 * What a finger is said to land by is what was heard of it, as the board draws it; only the size in mm is what the notes and
 * earlier takes make likely together. A frame is shown by a finger that was played.
 */
function asHeard({ notes }: Evidence, finding: Finding): Finding {
  if (finding.code !== 'frame' && finding.code !== 'finger') return finding
  const heard = rollup(
    notes.filter((note) => !isStray(note)),
    (own) => mean(own, ({ landing }) => landing.cents)!,
    ({ target }) => target.finger,
  )
  if (finding.code === 'finger') return { ...finding, cents: heard.get(finding.finger) ?? finding.cents }
  const own = heard.get(finding.shownBy)
  if (own !== undefined) return { ...finding, cents: own }
  // Its end was not played: the finger that shows it most.
  const [shownBy, cents] =
    greatest(heard, ([, off]) => off * Math.sign(finding.cents)) ??
    ([finding.shownBy, finding.cents] as const)
  return { ...finding, shownBy, cents }
}

/** Different every time: the notes scatter by more than the tolerance, and it is no chance. */
function scatterFinding({ notes, toleranceCents }: Evidence, cents: number): Finding | undefined {
  const freedom = sum(notes, ({ weight }) => weight) - 1
  if (freedom < LEAST_FREEDOM) return undefined
  const leastCents = cents * Math.sqrt(freedom / chiSquare(1 - SURELY, freedom))
  return leastCents > toleranceCents ? { code: 'scatter', cents, leastCents } : undefined
}

/** The scatter of one note about what explains the take best, with its interval; undefined where notes are too few to say. */
function scatterOf({ notes, leastScatterCents }: Evidence, cents: number): ScatterEstimate | undefined {
  const freedom = sum(notes, ({ weight }) => weight) - FINGERS
  // A place that was looked at is coarser than the finger that came down on it.
  if (freedom < LEAST_FREEDOM || leastScatterCents > 0) return undefined
  const bound = (probability: number) => cents * Math.sqrt(freedom / chiSquare(probability, freedom))
  return { cents, lowCents: bound(1 - SURELY / 2), highCents: bound(SURELY / 2) }
}

/** From its place, towards the bridge. A string out of tune moves what its notes are held against. */
function offMm(stringing: Stringing, { landing, target, cents }: EvidenceNote): number {
  const placeMm =
    cents === landing.cents
      ? landing.placeMm
      : placeOnString(stringing, target.stringIndex, target.cents + cents)
  return placeMm - target.placeMm
}

function summaries({ notes, stringing }: Evidence): FingerSummary[] {
  const byFinger = group(
    notes.filter(({ weight }) => weight > 0),
    ({ target }) => target.finger,
  )
  return [...byFinger]
    .map(([finger, own]): FingerSummary => {
      const { target } = own[0]!
      const weight = sum(own, (note) => note.weight)
      const meanCents = sum(own, (note) => note.weight * note.cents) / weight
      const spreadCents = deviation(own, (note) => note.cents)
      return {
        finger,
        target,
        count: own.length,
        meanCents,
        meanMm: mean(own, (note) => offMm(stringing, note))!,
        ...(spreadCents === undefined ? {} : { spreadCents }),
      }
    })
    .sort((a, b) => a.finger - b.finger)
}
