/** The probability that a standard normal deviate stays below this. Source: M. Abramowitz and I. A. Stegun, Handbook of Mathematical Functions (1964), 7.1.26 (error below 1.5e−7). */
export function normalBelow(deviate: number): number {
  if (Math.abs(deviate) > FAR) return deviate > 0 ? 1 : 0
  const x = Math.abs(deviate) * Math.SQRT1_2
  const t = 1 / (1 + 0.3275911 * x)
  const rest =
    t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))))
  const tail = (rest * Math.exp(-x * x)) / 2
  return deviate > 0 ? 1 - tail : tail
}

/** Beyond so many standard deviations what is left is below 1e−15: less than the error. */
const FAR = 8

/** The logarithm of a sum of numbers that are given as logarithms; −∞ of none. */
export function logSum(logs: ArrayLike<number>): number {
  let most = -Infinity
  for (let i = 0; i < logs.length; i++) most = Math.max(most, logs[i]!)
  if (most === -Infinity) return most
  let sum = 0
  for (let i = 0; i < logs.length; i++) sum += Math.exp(logs[i]! - most)
  return most + Math.log(sum)
}
