import { rollups, sum } from 'd3-array'
import type { Evidence } from './evidence'
import { KINDS, type Kind } from './kinds'
import { CORRELATIONS, possibleNoises, type Noise } from './noise'
import { productsOf, type Products } from './products'

/** A kind in one direction, with what it does to each note, the note that it moves most by 1 or −1. */
export interface Candidate {
  readonly kind: Kind
  /** 1: sharp where it shows most, or wide. */
  readonly sign: 1 | -1
  /** Its row of the products, which knows no direction. */
  readonly row: number
  /** Cents off, a note, for a size of one cent. */
  readonly effects: Float64Array
  /** Size of the kind for a size of one cent. */
  readonly perCent: number
}

/** One explanation of all notes: none, one or two candidates at once, and how probable it is beside all others. */
export interface Weighed {
  readonly candidates: readonly Candidate[]
  readonly probability: number
  /** The same as a logarithm, which does not end near 1. */
  readonly log: number
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
  /** Row 0 is what was played. */
  readonly products: Products
  readonly noises: readonly Noise[]
}

/**
 * A fault is so many tolerances at the note that shows it most, or cents where that is more: any size between, all alike by their
 * logarithms.
 */
const FAULT_SIZES = { least: 0.75, most: 6, mostCents: 150 } as const
/** What a hand that is well may still do, in tolerances, all alike. */
const SMALL_SIZES = { least: 0, most: 0.5 } as const
/** Of the small sizes together, beside a hand that is off by nothing. */
const SMALL_SHARE = 0.4
/** Before anything was heard. Faults alike, whatever they are: common practice has no numbers for single ones. */
const PRIOR = { well: 0.48, one: 0.38, two: 0.14 } as const
/** Single explanations of which pairs are made. */
const PAIRED = 6
/** Two faults that move the notes nearly alike cannot be told apart. */
const MOST_ALIKE = 0.93

/**
 * Holds every explanation against the notes: Bayes' rule over the kinds of fault, with size, scatter and how far each note follows
 * the one before summed over what they may be, so that a fault that could be anything is worth less than one that fits. A hand that
 * is well is one among them. Sizes are summed by Laplace's method, cut off at their bounds.
 * Source: D. J. C. MacKay, Information Theory, Inference and Learning Algorithms (2003), ch. 27 and 28; prior shares our own.
 */
export function weigh(evidence: Evidence): Weighing {
  const { notes, toleranceCents, leastScatterCents } = evidence
  const rows = candidateRows(evidence)
  const candidates = candidatesOf(rows)
  const products = productsOf(notes, [notes.map(({ cents }) => cents), ...rows.map(({ effects }) => effects)])
  const count = sum(notes, ({ weight }) => weight)
  const faulty = boundsOf(FAULT_SIZES, toleranceCents)
  const small = boundsOf(SMALL_SIZES, toleranceCents)
  const momentsBy = new Map(CORRELATIONS.map((correlation) => [correlation, momentsOf(products, rows.length, correlation)]))
  const noises = possibleNoises(count, leastScatterCents, (correlation) => momentsBy.get(correlation)!.least)
  const moments = noises.map(({ correlation }) => momentsBy.get(correlation)!)
  const logs = new Float64Array(noises.length)
  const over = (ofNoise: (moments: Moments, variance: number) => number) => {
    for (let i = 0; i < logs.length; i++) logs[i] = noises[i]!.log + ofNoise(moments[i]!, noises[i]!.variance)
    return logSum(logs)
  }
  const single = (one: Candidate, bounds: Bounds) =>
    over((of, variance) => logOne(of.yy, one.sign * of.xy[one.row]!, of.xx[one.row]!, variance, bounds))

  const exact = over(({ yy }, variance) => -yy / (2 * variance))
  const nearly =
    logSum(candidates.map((one) => single(one, small))) - Math.log(Math.max(1, candidates.length))
  const well = logSum([exact + Math.log(1 - SMALL_SHARE), nearly + Math.log(SMALL_SHARE)])
  const singles = candidates.map((one) => single(one, faulty))
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
      const signs = one.sign * other.sign
      const { xx } = momentsBy.get(0)!
      const alike = products.of(one.row, other.row, 0) / Math.sqrt(xx[one.row]! * xx[other.row]!)
      if (!(Math.abs(alike) < MOST_ALIKE)) continue
      const both = new Map(CORRELATIONS.map((r) => [r, signs * products.of(one.row, other.row, r)]))
      const shared = ways.get(keyOf(one))! * ways.get(keyOf(other))!
      const log = over((of, variance) =>
        logTwo(
          of.yy,
          { xy: one.sign * of.xy[one.row]!, xx: of.xx[one.row]! },
          { xy: other.sign * of.xy[other.row]!, xx: of.xx[other.row]! },
          both.get(of.correlation)!,
          variance,
          faulty,
        ),
      )
      all.push({ candidates: [one, other], usual: PRIOR.two / pairCount, log: log - Math.log(shared) })
    }
  const weights = all.map(({ usual, log }) => log + Math.log(usual))
  const total = logSum(weights)
  const explanations = all.map(({ candidates: of, usual }, i) => ({
    candidates: of,
    usual,
    log: weights[i]! - total,
    probability: Math.exp(weights[i]! - total),
  }))
  return weighingOf(evidence, explanations, { products, noises })
}

/** The same notes, weighed with what is believed of the hand in part of the place of what is usual of anybody. */
export function believing(evidence: Evidence, weighing: Weighing, belief: Believed): Weighing {
  const { explanations } = weighing
  const parts = explanations.map(({ candidates, usual, log }) => {
    const own = belief.likely[faultKey(candidates)] ?? 0
    return log + Math.log(((1 - belief.share) * usual + belief.share * own) / usual)
  })
  const total = logSum(parts)
  return weighingOf(
    evidence,
    explanations.map((one, i) => ({
      ...one,
      log: parts[i]! - total,
      probability: Math.exp(parts[i]! - total),
    })),
    weighing,
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

function weighingOf(
  { notes, leastScatterCents }: Evidence,
  weighed: readonly Weighed[],
  { products, noises }: Pick<Weighing, 'products' | 'noises'>,
): Weighing {
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
    products,
    noises,
  }
}

interface Bounds {
  readonly least: number
  readonly most: number
  /** How probable a size is, a cent. */
  readonly density: (cents: number) => number
}

function boundsOf(
  sizes: { readonly least: number; readonly most: number; readonly mostCents?: number },
  toleranceCents: number,
): Bounds {
  const from = sizes.least * toleranceCents
  const to = Math.max(sizes.most * toleranceCents, sizes.mostCents ?? 0)
  return {
    least: from,
    most: to,
    density: (cents) => (from > 0 ? 1 / (cents * Math.log(to / from)) : 1 / (to - from)),
  }
}

/** Inner products at one correlation: of what was played, and by row with it and with itself (row 0 is what was played). */
interface Moments {
  readonly correlation: number
  readonly yy: number
  readonly xy: Float64Array
  readonly xx: Float64Array
  /** Squares that the best single row leaves. */
  readonly least: number
}

function momentsOf(products: Products, rowCount: number, correlation: number): Moments {
  const rows = Array.from({ length: rowCount + 1 }, (_, row) => row)
  const xy = Float64Array.from(rows, (row) => products.of(0, row, correlation))
  const xx = Float64Array.from(rows, (row) => products.of(row, row, correlation))
  const yy = xx[0]!
  return { correlation, yy, xy, xx, least: Math.min(yy, ...rows.slice(1).map((row) => yy - xy[row]! ** 2 / xx[row]!)) }
}

/** How well one candidate explains the notes at this variance, its size summed over its bounds; a logarithm. */
function logOne(yy: number, xy: number, xx: number, variance: number, bounds: Bounds): number {
  const best = xy / xx
  const sigma = Math.sqrt(variance / xx)
  return -(yy - best * xy) / (2 * variance) + Math.log(within(best, sigma, bounds))
}

interface Own {
  readonly xy: number
  readonly xx: number
}

/** The same of two at once: the first by itself, the second where the first lies. */
function logTwo(yy: number, a: Own, b: Own, ab: number, variance: number, bounds: Bounds): number {
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

/** The same for every way of the same fault, or pair of faults; empty of a hand that is well. */
export function faultKey(candidates: readonly Candidate[]): string {
  return candidates.map(keyOf).sort().join(' + ')
}

/** Faults of two directions are two: a hand that is too high is another than one that is too low. */
function keyOf({ kind, sign }: Candidate): string {
  return `${kind.id} ${sign}`
}

/** What a kind does to each note, the note that it moves most by one cent; it is one row of the products. */
interface Row {
  readonly kind: Kind
  readonly effects: Float64Array
  readonly perCent: number
}

function candidateRows(evidence: Evidence): Row[] {
  const { notes } = evidence
  const found: Row[] = []
  for (const kind of KINDS.flatMap((kindsOf) => kindsOf(evidence))) {
    const effects = Float64Array.from(notes, (note) => kind.moves(note) * note.centsPerMm)
    let most = 0
    for (let i = 0; i < effects.length; i++)
      if (notes[i]!.weight > 0) most = Math.max(most, Math.abs(effects[i]!))
    if (!(most > 0)) continue
    for (let i = 0; i < effects.length; i++) effects[i]! /= most
    found.push({ kind, effects, perCent: 1 / most })
  }
  return found
}

/** Both directions of every row, each once: where two would move the notes alike, the first stands for both. */
function candidatesOf(rows: readonly Row[]): Candidate[] {
  const found: Candidate[] = []
  for (const [k, { kind, effects, perCent }] of rows.entries())
    for (const sign of kind.sign ? [kind.sign] : ([1, -1] as const)) {
      const signed = sign === 1 ? effects : effects.map((cents) => -cents)
      if (found.some((one) => isAlike(one.effects, signed))) continue
      found.push({ kind, sign, row: k + 1, effects: signed, perCent: sign * perCent })
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

function logSum(logs: ArrayLike<number>): number {
  let most = -Infinity
  for (let i = 0; i < logs.length; i++) most = Math.max(most, logs[i]!)
  if (most === -Infinity) return most
  let sum = 0
  for (let i = 0; i < logs.length; i++) sum += Math.exp(logs[i]! - most)
  return most + Math.log(sum)
}
