import { max, maxIndex, sum } from 'd3-array'
import { logSum, normalBelow } from '../stats'
import type { Candidate } from './candidates'
import type { Noise } from './noise'
import { sharedBy, type Products } from './products'
import type { Size, Weighed, Weighing } from './weighing'

/** Of a posterior whose kinds and noises may not be the true ones so much is told: from simulation, it holds 95 %. */
const HOLDS = 0.965
const STEPS = 240
/** As far as a bell is summed, standard deviations. */
const BELL = 5
/** A noise that is less probable than this beside the likeliest adds nothing to a size. */
const LEAST_SHARE = 1e-6
const TINY = 1e-9

/** The sizes of an explanation in one noise: where they are likeliest, and how sure each is, cents. */
interface Bell {
  readonly share: number
  readonly at: readonly number[]
  readonly sigma: readonly number[]
}

/**
 * Sizes of one fault or two that were named since they were more probable than `bar`. Whatever is named only when it is large is too
 * large on average: each possible size is held against the chance that it would have been named at all. All sizes are alike by their
 * logarithms beforehand. What is told is the middle of what is left, and the half-width about it that holds 95 %.
 * Sources: the conditional likelihood, H. Zhong and R. L. Prentice, Biostatistics 9 (2008) 621; as a posterior, D. Yekutieli,
 * J. R. Stat. Soc. B 74 (2012) 515.
 */
export function sizesChosen(
  weighing: Weighing,
  products: Products,
  noises: readonly Noise[],
  candidates: readonly Candidate[],
  bar: number,
  leastCents: number,
): Size[] {
  const bells = bellsOf(products, noises, candidates)
  const likeliest = noises[maxIndex(bells, ({ share }) => share)]!
  return candidates.map((candidate, k) => {
    const own = bells
      .filter(({ share }) => share > LEAST_SHARE)
      .map(({ share, at, sigma }) => ({ share, at: at[k]!, sigma: sigma[k]! }))
    const middle = sum(own, ({ share, at }) => share * at) / sum(own, ({ share }) => share)
    const least = leastNamed(weighing, products, likeliest, candidate, bar, middle)
    const most = Math.max(
      1.5 * leastCents,
      max(own, ({ at, sigma }) => at + BELL * sigma)!,
    )
    const step = (most - leastCents) / STEPS
    const sizes = Array.from({ length: STEPS }, (_, i) => leastCents + (i + 0.5) * step)
    const densities = sizes.map((size) =>
      sum(own, ({ share, at, sigma }) => {
        const isNamed = Math.max(TINY, normalBelow((size - least) / sigma))
        return (share * Math.exp(-(((size - at) / sigma) ** 2) / 2)) / (sigma * size * isNamed)
      }),
    )
    return sizeOf(sizes, densities)
  })
}

/** The middle of a distribution over rising sizes, and the half-width about it that holds 95 %. */
export function sizeOf(sizes: readonly number[], densities: readonly number[]): Size {
  const all = sum(densities)
  let [seen, i] = [densities[0]!, 0]
  while (seen < all / 2 && i < sizes.length - 1) seen += densities[++i]!
  const cents = sizes[i]!
  // Outwards from the middle, the nearer side first.
  let [low, high, held, reach] = [i, i, densities[i]!, 0]
  while (held < HOLDS * all && (low > 0 || high < sizes.length - 1)) {
    const below = low > 0 ? cents - sizes[low - 1]! : Infinity
    const above = high < sizes.length - 1 ? sizes[high + 1]! - cents : Infinity
    reach = Math.min(below, above)
    held += below <= above ? densities[--low]! : densities[++high]!
  }
  return { cents, plusMinusCents: reach }
}

function bellsOf(products: Products, noises: readonly Noise[], [a, b]: readonly Candidate[]): Bell[] {
  if (!a) return []
  const bells = noises.map(({ hanging, variance, log }) => {
    const [yy, aa] = [products.ofPlayed(hanging), products.of(a.row, a.row, hanging)]
    const ya = a.sign * products.withPlayed(a.row, hanging)
    if (!b) {
      const left = yy - ya ** 2 / aa
      return {
        log: log - left / (2 * variance) + Math.log(variance / aa) / 2,
        at: [ya / aa],
        per: [1 / aa],
        variance,
      }
    }
    const bb = products.of(b.row, b.row, hanging)
    const yb = b.sign * products.withPlayed(b.row, hanging)
    const ab = a.sign * b.sign * products.of(a.row, b.row, hanging)
    const determinant = aa * bb - ab * ab
    const at = [(ya * bb - yb * ab) / determinant, (yb * aa - ya * ab) / determinant]
    const left = yy - at[0]! * ya - at[1]! * yb
    return {
      log: log - left / (2 * variance) + Math.log(variance ** 2 / determinant) / 2,
      at,
      per: [bb / determinant, aa / determinant],
      variance,
    }
  })
  const best = max(bells, ({ log }) => log)!
  return bells.map(({ log, at, per, variance }) => ({
    share: Math.exp(log - best),
    at,
    sigma: per.map((one) => Math.sqrt(variance * one)),
  }))
}

/** Explanations that might have been told in the place of a fault. */
const RIVALS = 6
/** Two that say nearly the same are told apart by this part of what they say at least. */
const LEAST_APART = 0.02

/**
 * The least size at which a fault would have been named, cents, all else alike: where its odds against the rival that it beats by
 * least come down to the bar. The logarithm of the odds grows with the number of notes times that of 1 + t²/n (a likelihood ratio
 * whose scatter is estimated), t being the size in standard errors of what the rival cannot say.
 */
function leastNamed(
  { explanations, notes }: Weighing,
  products: Products,
  { hanging, variance }: Noise,
  candidate: Candidate,
  bar: number,
  sizeCents: number,
): number {
  const isIn = ({ candidates }: Weighed) => candidates.some(({ key }) => key === candidate.key)
  const own = logSum(explanations.filter(isIn).map(({ log }) => log))
  const count = sum(notes, ({ weight }) => weight)
  const of = (p: number, q: number) => products.of(p, q, hanging)
  const xx = of(candidate.row, candidate.row)
  const rivals = explanations.filter((one) => !isIn(one)).slice(0, RIVALS)
  const least = rivals.map(({ candidates: [a, b], log }) => {
    const apart = Math.max(LEAST_APART, 1 - sharedBy(of, candidate.row, a?.row, b?.row))
    const perCent = (xx * apart) / variance
    const margin = Math.max(0, own - log - Math.log(bar / (1 - bar)))
    const t2 = (count + sizeCents ** 2 * perCent) * Math.exp((-2 * margin) / count) - count
    return Math.sqrt(Math.max(0, t2) / perCent)
  })
  return max(least) ?? 0
}
