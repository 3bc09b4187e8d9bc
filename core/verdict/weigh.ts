import { rollups, sum } from 'd3-array'
import type { Evidence } from './evidence'
import { KINDS, type Kind } from './kinds'

/** A kind in one direction, with what it does to each note, the note that it moves most by 1 or −1. */
export interface Candidate {
  readonly kind: Kind
  /** 1: sharp where it shows most, or wide. */
  readonly sign: 1 | -1
  /** Cents off, a note, for a size of one cent. */
  readonly effects: Float64Array
  /** Size of the kind for a size of one cent. */
  readonly perCent: number
}

/** One explanation of all notes: none, one or two candidates at once, and how probable it is beside all others. */
export interface Weighed {
  readonly candidates: readonly Candidate[]
  readonly probability: number
  /** How probable its faults are of anybody, before anything was heard. */
  readonly usual: number
}

/** How probable each fault, or pair of faults, is by the notes of one take; by {@link faultKey}. */
export type Likely = Readonly<Record<string, number>>

/** What is believed of a hand beforehand, and its share beside what is usual of anybody. */
export interface Believed {
  readonly share: number
  readonly likely: Likely
}

export interface Weighing {
  readonly notes: Evidence['notes']
  /** The most probable first; with `candidates` empty the hand that is well. */
  readonly explanations: readonly Weighed[]
  /** Standard deviation of one note about the best of them, cents. */
  readonly scatterCents: number
}

/** A fault is so many tolerances at the note that shows it most: any size between, all alike by their logarithms. */
const FAULT_SIZES = { least: 0.75, most: 6 } as const
/** What a hand that is well may still do, in tolerances, all alike. */
const SMALL_SIZES = { least: 0, most: 0.5 } as const
/** Of the small sizes together, beside a hand that is off by nothing. */
const SMALL_SHARE = 0.4
/** Before anything was heard. Faults alike, whatever they are: common practice has no numbers for single ones. */
const PRIOR = { well: 0.5, one: 0.4, two: 0.1 } as const
/** Scatter of players, cents: log-normal about seven. From simulation of the levels of handbook § 7. */
const SCATTER = { middle: 7, logSigma: 0.6 } as const
const SCATTERS = Array.from({ length: 16 }, (_, i) => 1.5 * 1.24 ** i)
/** What is further from the likeliest than this, as a logarithm, is not worth its arithmetic. */
const SCATTER_REACH = 14
/** Single explanations of which pairs are made. */
const PAIRED = 6
/** Two faults that move the notes nearly alike cannot be told apart. */
const MOST_ALIKE = 0.93

/**
 * Holds every explanation against the notes: Bayes' rule over the kinds of fault, with size and scatter summed over what they may
 * be, so that a fault that could be anything is worth less than one that fits. A hand that is well is one among them. Sizes are
 * summed by Laplace's method, cut off at their bounds.
 * Source: D. J. C. MacKay, Information Theory, Inference and Learning Algorithms (2003), ch. 27 and 28; prior shares our own.
 */
export function weigh(evidence: Evidence): Weighing {
  const { notes, toleranceCents, leastScatterCents } = evidence
  const y = Float64Array.from(notes, ({ cents }) => cents)
  const w = Float64Array.from(notes, ({ weight }) => weight)
  const candidates = candidatesOf(evidence)
  const yy = dot(w, y, y)
  const count = sum(w)
  const moments = candidates.map(({ effects }) => ({
    xy: dot(w, effects, y),
    xx: dot(w, effects, effects),
  }))
  const faulty = boundsOf(FAULT_SIZES, toleranceCents)
  const small = boundsOf(SMALL_SIZES, toleranceCents)
  const scatters = possibleScatters(
    count,
    Math.min(yy, ...moments.map(({ xy, xx }) => yy - xy ** 2 / xx)),
    leastScatterCents,
  )
  const over = (ofScatter: (variance: number) => number) =>
    logSum(scatters.map(({ variance, log }) => log + ofScatter(variance)))

  const exact = over((variance) => -yy / (2 * variance))
  const nearly =
    logSum(moments.map((own) => over((variance) => logOne(yy, own, variance, small)))) -
    Math.log(Math.max(1, moments.length))
  const well = logSum([exact + Math.log(1 - SMALL_SHARE), nearly + Math.log(SMALL_SHARE)])
  const singles = moments.map((own) => over((variance) => logOne(yy, own, variance, faulty)))
  // Ways of one fault share its chance.
  const ways = new Map<string, number>()
  for (const one of candidates) ways.set(keyOf(one), (ways.get(keyOf(one)) ?? 0) + 1)

  /** How well each explains the notes, its ways sharing what is usual of their fault. */
  const all: (Pick<Weighed, 'candidates' | 'usual'> & { readonly log: number })[] = [
    { candidates: [], usual: PRIOR.well, log: well },
    ...candidates.map((one, k) => ({
      candidates: [one],
      usual: PRIOR.one / ways.size,
      log: singles[k]! - Math.log(ways.get(keyOf(one))!),
    })),
  ]
  const likeliest = [...candidates.keys()].sort((p, q) => singles[q]! - singles[p]!).slice(0, PAIRED)
  const pairCount = Math.max(1, (ways.size * (ways.size - 1)) / 2)
  const isDone = new Set<number>()
  for (const a of likeliest)
    for (const b of candidates.keys()) {
      const [one, other] = [candidates[a]!, candidates[b]!]
      const id = Math.min(a, b) * candidates.length + Math.max(a, b)
      if (one.kind.id === other.kind.id || isDone.has(id)) continue
      isDone.add(id)
      const ab = dot(w, one.effects, other.effects)
      const [own, theirs] = [moments[a]!, moments[b]!]
      if (!(Math.abs(ab) < MOST_ALIKE * Math.sqrt(own.xx * theirs.xx))) continue
      const shared = ways.get(keyOf(one))! * ways.get(keyOf(other))!
      all.push({
        candidates: [one, other],
        usual: PRIOR.two / pairCount,
        log: over((variance) => logTwo(yy, own, theirs, ab, variance, faulty)) - Math.log(shared),
      })
    }
  const logs = all.map(({ usual, log }) => log + Math.log(usual))
  const total = logSum(logs)
  return weighingOf(
    evidence,
    all.map(({ candidates: of, usual }, i) => ({
      candidates: of,
      usual,
      probability: Math.exp(logs[i]! - total),
    })),
  )
}

/** The same notes, weighed with what is believed of the hand in part of the place of what is usual of anybody. */
export function believing(evidence: Evidence, { explanations }: Weighing, belief: Believed): Weighing {
  const parts = explanations.map(({ candidates, usual, probability }) => {
    const own = belief.likely[faultKey(candidates)] ?? 0
    return (probability * ((1 - belief.share) * usual + belief.share * own)) / usual
  })
  const total = sum(parts)
  return weighingOf(
    evidence,
    explanations.map((one, i) => ({ ...one, probability: parts[i]! / total })),
  )
}

/** What a take by itself makes likely, as it is kept for later ones; what is less likely than this is left out. */
const LEAST_LIKELY = 0.002
export function likelyOf({ explanations }: Weighing): Likely {
  const byFault = rollups(
    explanations,
    (ways) => sum(ways, ({ probability }) => probability),
    ({ candidates }) => faultKey(candidates),
  )
  return Object.fromEntries(byFault.filter(([, probability]) => probability >= LEAST_LIKELY))
}

function weighingOf({ notes, leastScatterCents }: Evidence, weighed: readonly Weighed[]): Weighing {
  const explanations = [...weighed].sort((p, q) => q.probability - p.probability)
  const { candidates } = explanations[0]!
  const { sizesCents } = sizesOf(notes, candidates)
  const left = leftOver(notes, candidates, sizesCents)
  const w = Float64Array.from(notes, ({ weight }) => weight)
  const freedom = Math.max(1, sum(w) - sizesCents.length)
  return {
    notes,
    explanations,
    scatterCents: Math.max(leastScatterCents, Math.sqrt(dot(w, left, left) / freedom)),
  }
}

interface Bounds {
  readonly least: number
  readonly most: number
  /** How probable a size is, a cent. */
  readonly density: (cents: number) => number
}

function boundsOf(
  { least, most }: { readonly least: number; readonly most: number },
  toleranceCents: number,
): Bounds {
  const [from, to] = [least * toleranceCents, most * toleranceCents]
  return {
    least: from,
    most: to,
    density: (cents) => (from > 0 ? 1 / (cents * Math.log(to / from)) : 1 / (to - from)),
  }
}

interface Moments {
  readonly xy: number
  readonly xx: number
}

/** How well one candidate explains the notes at this variance, its size summed over its bounds; a logarithm. */
function logOne(yy: number, { xy, xx }: Moments, variance: number, bounds: Bounds): number {
  const best = xy / xx
  const sigma = Math.sqrt(variance / xx)
  return -(yy - best * xy) / (2 * variance) + Math.log(within(best, sigma, bounds))
}

/** The same of two at once: the first by itself, the second where the first lies. */
function logTwo(yy: number, a: Moments, b: Moments, ab: number, variance: number, bounds: Bounds): number {
  const determinant = a.xx * b.xx - ab ** 2
  const bestA = (a.xy * b.xx - b.xy * ab) / determinant
  const bestB = (b.xy * a.xx - a.xy * ab) / determinant
  const lies = Math.min(bounds.most, Math.max(bounds.least, bestA))
  const left = yy - bestA * a.xy - bestB * b.xy
  return (
    -left / (2 * variance) +
    Math.log(within(bestA, Math.sqrt((variance * b.xx) / determinant), bounds)) +
    Math.log(within((b.xy - lies * ab) / b.xx, Math.sqrt(variance / b.xx), bounds))
  )
}

/** The integral of a normal bell of height one times the density of sizes, within the bounds of size. */
function within(best: number, sigma: number, { least, most, density }: Bounds): number {
  const mass = normalMass((least - best) / sigma, (most - best) / sigma)
  return density(Math.min(most, Math.max(least, best))) * Math.sqrt(2 * Math.PI) * sigma * mass + TINY
}

const TINY = 1e-300

/** Between two standard deviates. Source: M. Abramowitz and I. A. Stegun, Handbook of Mathematical Functions (1964), 7.1.26. */
function normalMass(from: number, to: number): number {
  return Math.max(0, (erf(to * Math.SQRT1_2) - erf(from * Math.SQRT1_2)) / 2)
}

function erf(x: number): number {
  const t = 1 / (1 + 0.3275911 * Math.abs(x))
  const rest =
    t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))))
  return Math.sign(x) * (1 - rest * Math.exp(-x * x))
}

interface Scatter {
  readonly variance: number
  /** Its own part of the probability, and that of the notes’ number. */
  readonly log: number
}

/** Scatters that these notes leave possible, `least` being the squares that the best explanation leaves. */
function possibleScatters(count: number, least: number, floorCents: number): Scatter[] {
  const all = SCATTERS.filter((cents, i) => cents >= floorCents || i === SCATTERS.length - 1).map(
    (cents) => ({
      variance: cents ** 2,
      // The prior of a logarithm, on steps of equal logarithms.
      log: -count * Math.log(cents) - (Math.log(cents / SCATTER.middle) / SCATTER.logSigma) ** 2 / 2,
    }),
  )
  const logs = all.map(({ variance, log }) => log - least / (2 * variance))
  const best = Math.max(...logs)
  // Two faults may leave half of what one leaves: a smaller scatter is possible by them.
  const isPossible = ({ variance, log }: Scatter, i: number) =>
    logs[i]! > best - SCATTER_REACH || log - least / 2 / (2 * variance) > best
  return all.filter(isPossible)
}

/** The same for every way of the same fault, or pair of faults; empty of a hand that is well. */
export function faultKey(candidates: readonly Candidate[]): string {
  return candidates.map(keyOf).sort().join(' + ')
}

/** Faults of two directions are two: a hand that is too high is another than one that is too low. */
function keyOf({ kind, sign }: Candidate): string {
  return `${kind.id} ${sign}`
}

function candidatesOf(evidence: Evidence): Candidate[] {
  const { notes } = evidence
  const found: Candidate[] = []
  for (const kind of KINDS.flatMap((kindsOf) => kindsOf(evidence))) {
    const effects = Float64Array.from(notes, (note) => kind.moves(note) * note.centsPerMm)
    let most = 0
    for (let i = 0; i < effects.length; i++)
      if (notes[i]!.weight > 0) most = Math.max(most, Math.abs(effects[i]!))
    if (!(most > 0)) continue
    for (let i = 0; i < effects.length; i++) effects[i]! /= most
    for (const sign of kind.sign ? [kind.sign] : ([1, -1] as const)) {
      const signed = sign === 1 ? effects : effects.map((cents) => -cents)
      if (found.some((one) => isAlike(one.effects, signed))) continue
      found.push({ kind, sign, effects: signed, perCent: sign / most })
    }
  }
  return found
}

function isAlike(a: Float64Array, b: Float64Array): boolean {
  for (let i = 0; i < a.length; i++) if (!(Math.abs(a[i]! - b[i]!) < 1e-6)) return false
  return true
}

/** Least-squares sizes of one candidate, or of two together, in cents at the note that shows each most, and their standard errors. */
export function sizesOf(
  notes: Evidence['notes'],
  candidates: readonly Candidate[],
): { readonly sizesCents: readonly number[]; readonly perScatter: readonly number[] } {
  const w = Float64Array.from(notes, ({ weight }) => weight)
  const y = Float64Array.from(notes, ({ cents }) => cents)
  const [a, b] = candidates
  if (!a) return { sizesCents: [], perScatter: [] }
  const aa = dot(w, a.effects, a.effects)
  const ya = dot(w, a.effects, y)
  if (!b) return { sizesCents: [ya / aa], perScatter: [1 / Math.sqrt(aa)] }
  const bb = dot(w, b.effects, b.effects)
  const ab = dot(w, a.effects, b.effects)
  const yb = dot(w, b.effects, y)
  const determinant = aa * bb - ab * ab
  return {
    sizesCents: [(ya * bb - yb * ab) / determinant, (yb * aa - ya * ab) / determinant],
    perScatter: [Math.sqrt(bb / determinant), Math.sqrt(aa / determinant)],
  }
}

/** What the candidates of these sizes do not explain, cents a note. */
export function leftOver(
  notes: Evidence['notes'],
  candidates: readonly Candidate[],
  sizesCents: readonly number[],
): Float64Array {
  return Float64Array.from(notes, ({ cents }, i) =>
    candidates.reduce((left, { effects }, k) => left - sizesCents[k]! * effects[i]!, cents),
  )
}

export function dot(w: Float64Array, a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < w.length; i++) sum += w[i]! * a[i]! * b[i]!
  return sum
}

function logSum(logs: readonly number[]): number {
  const most = Math.max(...logs)
  if (most === -Infinity) return most
  let sum = 0
  for (const log of logs) sum += Math.exp(log - most)
  return most + Math.log(sum)
}
