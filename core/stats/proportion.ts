import { chiSquare } from './students-t'

/**
 * The interval of a proportion that holds the true one with probability `confidence`, from `hits` of `trials`: Wilson’s score interval,
 * which is right for few trials and at none or all of them. Source: E. B. Wilson, J. Amer. Statist. Assoc. 22 (1927) 209; recommended by
 * R. G. Newcombe, Statistics in Medicine 17 (1998) 857, method 3, whose examples are in the test.
 *
 * @throws RangeError without a trial, or with more hits than trials
 */
export function proportionInterval(
  hits: number,
  trials: number,
  confidence: number,
): [low: number, high: number] {
  if (!(trials > 0 && hits >= 0 && hits <= trials))
    throw new RangeError(`${hits} of ${trials} is no proportion`)
  // The square of a normal deviate is chi-square with one degree of freedom.
  const z2 = chiSquare(confidence, 1)
  const p = hits / trials
  const middle = p + z2 / (2 * trials)
  const reach = Math.sqrt(z2 * ((p * (1 - p)) / trials + z2 / (4 * trials * trials)))
  const whole = 1 + z2 / trials
  // What is rounded at the ends is none, or all.
  return [hits === 0 ? 0 : (middle - reach) / whole, hits === trials ? 1 : (middle + reach) / whole]
}
