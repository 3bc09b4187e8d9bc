import { sum } from 'd3-array'
import { logSum, normalBelow } from '../stats'
import { candidatesOf, rowsOf, type Candidate } from './candidates'
import type { Evidence } from './evidence'
import { dot, leftOver, sizesOf } from './least-squares'
import { moreNotes } from './more-notes'
import { HANGINGS, INDEPENDENT, possibleNoises, type LeftOf } from './noise'
import { faultSizes, SMALL_SHARE, smallSizes, usualOf, type Bounds } from './prior'
import { productsOf, sharedBy, type Hanging, type Products } from './products'
import { sizesChosen } from './size'
import { weighingOf, type Unweighed, type Weighing } from './weighing'

/** Single explanations of which pairs are made. */
const PAIRED = 6
/** Two faults that move the notes nearly alike cannot be told apart. */
const MOST_ALIKE = 0.93
/** Two that together say as much as a third fault alone, by this part, are that one said in a roundabout way. */
const ROUNDABOUT = 0.98

/**
 * Holds every explanation against the notes: Bayes' rule over the kinds of fault, with size, scatter and how far each note follows
 * the one before summed over what they may be, so that a fault that could be anything is worth less than one that fits. A hand that
 * is well is one among them. Sizes are summed by Laplace's method, cut off at their bounds.
 * Source: D. J. C. MacKay, Information Theory, Inference and Learning Algorithms (2003), ch. 27 and 28; prior shares our own.
 */
export function weigh(evidence: Evidence): Weighing {
  const { notes, toleranceCents, leastScatterCents } = evidence
  const rows = rowsOf(evidence)
  const candidates = candidatesOf(rows)
  const products = productsOf(
    notes,
    rows.map(({ effects }) => effects),
  )
  const [faulty, small] = [faultSizes(toleranceCents), smallSizes(toleranceCents)]
  const momentsAt = new Map(HANGINGS.map((hanging) => [hanging, momentsOf(products, rows.length, hanging)]))
  const noises = possibleNoises(
    sum(notes, ({ weight }) => weight),
    leastScatterCents,
    (hanging) => momentsAt.get(hanging)!,
  )
  const moments = noises.map(({ hanging }) => momentsAt.get(hanging)!)
  const logs = new Float64Array(noises.length)
  const over = (ofNoise: (moments: Moments, variance: number) => number) => {
    for (let i = 0; i < logs.length; i++) logs[i] = noises[i]!.log + ofNoise(moments[i]!, noises[i]!.variance)
    return logSum(logs)
  }
  const single = (one: Candidate, bounds: Bounds) => over((of, variance) => logOne(of, one, variance, bounds))

  const exact = over(({ yy }, variance) => -yy / (2 * variance))
  const nearly =
    logSum(candidates.map((one) => single(one, small))) - Math.log(Math.max(1, candidates.length))
  const well = logSum([exact + Math.log(1 - SMALL_SHARE), nearly + Math.log(SMALL_SHARE)])
  const singles = candidates.map((one) => single(one, faulty))
  const pairs = pairsOf(candidates, singles, products).map((pair) => {
    const [one, other] = pair
    const both = new Map(
      HANGINGS.map((hanging) => [hanging, one.sign * other.sign * products.of(one.row, other.row, hanging)]),
    )
    const log = over((of, variance) => logTwo(of, one, other, both.get(of.hanging)!, variance, faulty))
    return { pair, log }
  })
  const usual = usualOf(candidates)
  const explained = (of: readonly Candidate[], log: number): Unweighed => ({
    candidates: of,
    usual: usual.of(of),
    // Ways of one fault share its chance.
    log: log + Math.log(usual.of(of) / usual.waysOf(of)),
  })
  return weighingOf(
    notes,
    [
      explained([], well),
      ...candidates.map((one, k) => explained([one], singles[k]!)),
      ...pairs.map(({ pair, log }) => explained(pair, log)),
    ],
    {
      scatterCents: (best) => Math.max(leastScatterCents, scatterAbout(evidence, best)),
      sizes: (weighing, of, bar, leastCents) => sizesChosen(weighing, products, noises, of, bar, leastCents),
      more: moreNotes,
    },
  )
}

/** What these explain leaves so much scatter of one note, cents. */
function scatterAbout({ notes }: Evidence, candidates: readonly Candidate[]): number {
  const left = leftOver(notes, candidates, sizesOf(notes, candidates))
  const w = Float64Array.from(notes, ({ weight }) => weight)
  return Math.sqrt(dot(w, left, left) / Math.max(1, sum(w) - candidates.length))
}

/** The likeliest single faults, each with every other that is another fault and moves the notes otherwise. */
function pairsOf(
  candidates: readonly Candidate[],
  singles: readonly number[],
  products: Products,
): (readonly [Candidate, Candidate])[] {
  const of = independentProducts(candidates, products)
  const says = (third: number, some: number, other?: number) => sharedBy(of, third, some, other) > ROUNDABOUT
  // Said of a fault alone whatever it is paired with.
  const saysAlone = candidates.map((_, one) => candidates.map((_, third) => says(third, one)))
  const isRoundabout = (pair: readonly [number, number]) =>
    candidates.some(
      ({ kind }, third) =>
        pair.every((one) => candidates[one]!.kind.id !== kind.id && !saysAlone[one]![third]!) &&
        says(third, ...pair),
    )
  const likeliest = [...candidates.keys()].sort((p, q) => singles[q]! - singles[p]!).slice(0, PAIRED)
  return likeliest.flatMap((a, rank) =>
    candidates.flatMap((other, b) => {
      const one = candidates[a]!
      // Several strings off at once are a hand, or all of them are to be tuned first.
      if (one.kind.isTuning && other.kind.isTuning) return []
      // The pair of two of the likeliest is made once.
      if (one.kind.id === other.kind.id || likeliest.slice(0, rank).includes(b)) return []
      const alike = of(a, b) / Math.sqrt(of(a, a) * of(b, b))
      if (!(Math.abs(alike) < MOST_ALIKE)) return []
      return isRoundabout([a, b]) ? [] : [[one, other] as const]
    }),
  )
}

/** Inner products of candidates by their places, each note by itself: asked for tens of thousands of times. */
function independentProducts(candidates: readonly Candidate[], products: Products) {
  const count = candidates.length
  const kept = new Float64Array(count ** 2)
  for (const [a, one] of candidates.entries())
    for (const [b, other] of candidates.entries())
      kept[a * count + b] = products.of(one.row, other.row, INDEPENDENT)
  return (a: number, b: number) => kept[a * count + b]!
}

/** Inner products of errors that hang together so: of what was played with itself, and of each row with it and with itself. */
interface Moments extends LeftOf {
  readonly hanging: Hanging
  readonly yy: number
  readonly xy: Float64Array
  readonly xx: Float64Array
}

function momentsOf(products: Products, rowCount: number, hanging: Hanging): Moments {
  const rows = Array.from({ length: rowCount }, (_, row) => row)
  const xy = Float64Array.from(rows, (row) => products.withPlayed(row, hanging))
  const xx = Float64Array.from(rows, (row) => products.of(row, row, hanging))
  const yy = products.ofPlayed(hanging)
  const least = Math.min(yy, ...rows.map((row) => yy - xy[row]! ** 2 / xx[row]!))
  return { hanging, yy, xy, xx, least, logDeterminant: products.logDeterminant(hanging) }
}

/** How well one candidate explains the notes at this variance, its size summed over its bounds; a logarithm. */
function logOne({ yy, xy, xx }: Moments, { row, sign }: Candidate, variance: number, bounds: Bounds): number {
  const best = (sign * xy[row]!) / xx[row]!
  const sigma = Math.sqrt(variance / xx[row]!)
  return -(yy - best * sign * xy[row]!) / (2 * variance) + Math.log(within(best, sigma, bounds))
}

/** The same of two at once, `ab` being their product: the first by itself, the second where the first lies. */
function logTwo(
  { yy, xy, xx }: Moments,
  a: Candidate,
  b: Candidate,
  ab: number,
  variance: number,
  bounds: Bounds,
): number {
  const [aa, bb, ya, yb] = [xx[a.row]!, xx[b.row]!, a.sign * xy[a.row]!, b.sign * xy[b.row]!]
  const determinant = aa * bb - ab ** 2
  const bestA = (ya * bb - yb * ab) / determinant
  const bestB = (yb * aa - ya * ab) / determinant
  const lies = Math.min(bounds.most, Math.max(bounds.least, bestA))
  const left = yy - bestA * ya - bestB * yb
  return (
    -left / (2 * variance) +
    Math.log(
      within(bestA, Math.sqrt((variance * bb) / determinant), bounds) *
        within((yb - lies * ab) / bb, Math.sqrt(variance / bb), bounds),
    )
  )
}

/** The integral of a normal bell of height one times the density of sizes, within the bounds of size. */
function within(best: number, sigma: number, { least, most, density }: Bounds): number {
  // From the side that is further off: there nothing is lost between two that are nearly 1.
  const mass =
    best < least
      ? normalBelow((best - least) / sigma) - normalBelow((best - most) / sigma)
      : normalBelow((most - best) / sigma) - normalBelow((least - best) / sigma)
  return density(Math.min(most, Math.max(least, best))) * Math.sqrt(2 * Math.PI) * sigma * mass + TINY
}

const TINY = 1e-150
