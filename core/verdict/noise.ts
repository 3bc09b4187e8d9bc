/** How the notes of a hand may scatter about what moves them. */
export interface Noise {
  /** Of one note, cents squared. */
  readonly variance: number
  /** Part of each note's error that the next one has too. */
  readonly correlation: number
  /** Its own part of the probability, and that of the notes’ number. */
  readonly log: number
}

/** Scatter of players, cents: log-normal about seven. From simulation of the levels of handbook § 7. */
const SCATTER = { middle: 7, logSigma: 0.6 } as const
const SCATTERS = Array.from({ length: 16 }, (_, i) => 1.5 * 1.24 ** i)
/** How far a player's error follows the one before: none is likeliest. Our own numbers. */
const USUAL_CORRELATIONS = [
  { correlation: 0, share: 0.5 },
  { correlation: 0.25, share: 0.3 },
  { correlation: 0.5, share: 0.16 },
  { correlation: 0.75, share: 0.04 },
] as const
export const CORRELATIONS: readonly number[] = USUAL_CORRELATIONS.map(({ correlation }) => correlation)
/** What is further from the likeliest than this, as a logarithm, is not worth its arithmetic. */
const REACH = 9

/**
 * The noises that these notes leave possible.
 *
 * @param leftBy squares that the best explanation leaves at a correlation.
 */
export function possibleNoises(
  count: number,
  floorCents: number,
  leftBy: (correlation: number) => number,
): Noise[] {
  const scatters = SCATTERS.filter((cents, i) => cents >= floorCents || i === SCATTERS.length - 1)
  const all = USUAL_CORRELATIONS.flatMap(({ correlation, share }) => {
    const left = leftBy(correlation)
    return scatters.map((cents) => ({
      variance: cents ** 2,
      correlation,
      left,
      log:
        // The prior of a logarithm, on steps of equal logarithms.
        Math.log(share) -
        count * Math.log(cents) -
        (Math.max(0, count - 1) / 2) * Math.log(1 - correlation ** 2) -
        (Math.log(cents / SCATTER.middle) / SCATTER.logSigma) ** 2 / 2,
    }))
  })
  const best = Math.max(...all.map(({ log, left, variance }) => log - left / (2 * variance)))
  // Two faults may leave half of what one leaves: a smaller scatter is possible by them.
  return all.filter(
    ({ log, left, variance }) =>
      log - left / (2 * variance) > best - REACH || log - left / (4 * variance) > best,
  )
}
