import { max, sum } from 'd3-array'
import type { Noise } from './noise'
import type { Products } from './products'
import { faultKey, type Candidate, type Weighed, type Weighing } from './weigh'

/** A size as it is told: cents at the note that shows it most, and how far the true one may be from it with 95 %. */
export interface Size {
  readonly cents: number
  readonly plusMinusCents: number
}

const HOLDS = 0.95
const STEPS = 240
/** As far as a bell is summed, standard deviations. */
const BELL = 5

export function sizesToldOf(
  weighing: Weighing,
  candidates: readonly Candidate[],
  leastOdds: number,
  leastCents: number,
): Size[] {
  const { products, noises } = weighing
  const bells = noises.map(({ correlation, variance, log }) => {
    const of = (a: number, b: number) => products.of(a, b, correlation)
    const yy = of(0, 0)
    const [a, b] = candidates as [Candidate, Candidate?]
    const aa = of(a.row, a.row)
    const ya = a.sign * of(0, a.row)
    if (!b) {
      const left = yy - ya ** 2 / aa
      return { log: log - left / (2 * variance) + Math.log(variance / aa) / 2, at: [ya / aa], sigma: [Math.sqrt(variance / aa)] }
    }
    const bb = of(b.row, b.row)
    const yb = b.sign * of(0, b.row)
    const ab = a.sign * b.sign * of(a.row, b.row)
    const determinant = aa * bb - ab * ab
    const at = [(ya * bb - yb * ab) / determinant, (yb * aa - ya * ab) / determinant]
    const left = yy - at[0]! * ya - at[1]! * yb
    return {
      log: log - left / (2 * variance) + Math.log(variance ** 2 / determinant) / 2,
      at,
      sigma: [Math.sqrt((variance * bb) / determinant), Math.sqrt((variance * aa) / determinant)],
    }
  })
  const best = max(bells, ({ log }) => log)!
  const mode = noises[bells.findIndex(({ log }) => log === best)]!
  return candidates.map((candidate, k) => {
    const own = bells
      .map(({ log, at, sigma }) => ({ share: Math.exp(log - best), at: at[k]!, sigma: sigma[k]! }))
      .filter(({ share }) => share > 1e-6)
    const bar = barOf(weighing, candidate, leastOdds, sum(own, ({ share, at }) => share * at) / sum(own, ({ share }) => share), mode)
    const from = leastCents
    const to = Math.max(from * 1.5, max(own, ({ at, sigma }) => at + BELL * sigma)!)
    const step = (to - from) / STEPS
    const density = Float64Array.from({ length: STEPS }, (_, i) => {
      const size = from + (i + 0.5) * step
      return sum(
        own,
        ({ share, at, sigma }) =>
          (share * Math.exp(-(((size - at) / sigma) ** 2) / 2)) /
          sigma / size ** Number(process.env['PW'] ?? 1) /
          Math.max(1e-9, upper((bar - size) / sigma)),
      )
    })
    const all = sum(density)
    const within = (low: number, high: number) => {
      let mass = 0
      for (let i = 0; i < STEPS; i++) {
        const size = from + (i + 0.5) * step
        if (size >= low && size <= high) mass += density[i]!
      }
      return mass / all
    }
    let [seen, i] = [0, 0]
    while (i < STEPS && (seen += density[i]!) < all / 2) i++
    const cents = from + (i + 0.5) * step
    let reach = step
    while (within(cents - reach, cents + reach) < HOLDS && reach < to) reach += step
    return { cents, plusMinusCents: reach }
  })
}

function upper(z: number): number {
  // Abramowitz and Stegun 7.1.26
  const x = Math.abs(z) * Math.SQRT1_2
  const t = 1 / (1 + 0.3275911 * x)
  const tail =
    (t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429)))) *
      Math.exp(-x * x)) / 2
  return z >= 0 ? tail : 1 - tail
}

const RIVALS = 6
const LEAST_OWN = 0.02
function barOf({ products, explanations, notes }: Weighing, candidate: Candidate, bar: number, at: number, { correlation, variance }: Noise): number {
  const isIn = ({ candidates }: Weighed) => candidates.some((one) => faultKey([one]) === faultKey([candidate]))
  const logOf = (some: readonly Weighed[]) => {
    const most = max(some, ({ log }) => log)!
    return most + Math.log(sum(some, ({ log }) => Math.exp(log - most)))
  }
  const own = logOf(explanations.filter(isIn))
  const count = sum(notes, ({ weight }) => weight)
  const xx = products.of(candidate.row, candidate.row, correlation)
  const least = Math.log(bar / (1 - bar))
  return Math.max(0, ...explanations.filter((one) => !isIn(one)).slice(0, RIVALS).map(({ candidates, log }) => {
    const per = (xx * Math.max(LEAST_OWN, 1 - sharedBy(products, candidate.row, candidates, correlation))) / variance
    const margin = Math.max(0, own - log - least)
    const t2 = (1 + (at ** 2 * per) / count) * Math.exp((-2 * margin) / count) * count - count
    return Math.sqrt(Math.max(0, t2) / per)
  }))
}

/** The part of what a row says that others can say for it, 0 … 1: the square of its multiple correlation with them. */
function sharedBy(products: Products, row: number, [a, b]: readonly Candidate[], correlation: number): number {
  if (!a) return 0
  const of = (p: number, q: number) => products.of(p, q, correlation)
  const [xx, xa, aa] = [of(row, row), of(row, a.row), of(a.row, a.row)]
  if (!b) return xa ** 2 / (aa * xx)
  const [xb, ab, bb] = [of(row, b.row), of(a.row, b.row), of(b.row, b.row)]
  return (xa ** 2 * bb - 2 * xa * xb * ab + xb ** 2 * aa) / ((aa * bb - ab ** 2) * xx)
}
