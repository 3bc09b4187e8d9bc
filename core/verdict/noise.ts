import type { Hanging } from './products'

/** How the notes of a hand may scatter about what moves them. */
export interface Noise {
  /** Of one note, cents squared. */
  readonly variance: number
  readonly hanging: Hanging
  /** Its own part of the probability, and that of the notes’ number. */
  readonly log: number
}

/** Scatter of players, cents: log-normal about seven. Set beside the simulated levels of core/simulate/performance.ts. */
const SCATTER = { middle: 7, logSigma: 0.6 } as const
const SCATTERS = Array.from({ length: 12 }, (_, i) => 1.5 * 1.35 ** i)
/** Errors that do not hang together at all: the likeliest. */
export const INDEPENDENT = { hand: 0, stays: 0, share: 0.58 } as const
/** How a player's errors may hang together, and how usual each is. Our own numbers. */
export const USUALLY: readonly (Hanging & { readonly share: number })[] = [
  INDEPENDENT,
  { hand: 1, stays: 0.3, share: 0.18 },
  { hand: 0.5, stays: 0.8, share: 0.16 },
  { hand: 1, stays: 0.6, share: 0.08 },
]
export const HANGINGS: readonly Hanging[] = USUALLY
/** What is further from the likeliest than this, as a logarithm, is not worth its arithmetic. */
const REACH = 7

/** What errors that hang together so leave of the notes. */
export interface LeftOf {
  /** Squares that the best explanation leaves. */
  readonly least: number
  readonly logDeterminant: number
}

/** The noises that so many notes leave possible; none is below `floorCents`. */
export function possibleNoises(
  count: number,
  floorCents: number,
  leftOf: (hanging: Hanging) => LeftOf,
): Noise[] {
  const scatters = SCATTERS.filter((cents, i) => cents >= floorCents || i === SCATTERS.length - 1)
  const all = USUALLY.flatMap((hanging) => {
    const { least, logDeterminant } = leftOf(hanging)
    return scatters.map((cents) => ({
      variance: cents ** 2,
      hanging,
      least,
      log:
        // The prior of a logarithm, on steps of equal logarithms.
        Math.log(hanging.share) -
        count * Math.log(cents) -
        logDeterminant / 2 -
        (Math.log(cents / SCATTER.middle) / SCATTER.logSigma) ** 2 / 2,
    }))
  })
  const best = Math.max(...all.map(({ log, least, variance }) => log - least / (2 * variance)))
  // Two faults may leave half of what one leaves: a smaller scatter is possible by them.
  return all.filter(
    ({ log, least, variance }) =>
      log - least / (2 * variance) > best - REACH || log - least / (4 * variance) > best,
  )
}
