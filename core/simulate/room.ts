/** Delays of the combs, seconds, and how fast their echoes die: about a third of a second. */
const COMBS = [
  [0.0297, 0.62],
  [0.0371, 0.58],
  [0.0411, 0.55],
  [0.0437, 0.53],
] as const
const ALL_PASSES_S = [0.005, 0.0017]
const ALL_PASS_GAIN = 0.7

/**
 * Adds a small room to a sound, in place: four combs side by side, two all-passes after them.
 * Source: M. R. Schroeder, Natural sounding artificial reverberation, J. Audio Eng. Soc. 10 (1962) 219.
 *
 * @param part of the sound that comes back, 0 … 1.
 */
export function addRoom(sound: Float64Array, sampleRateHz: number, part: number): void {
  let echo = new Float64Array(sound.length)
  for (const [delayS, gain] of COMBS) {
    const delay = Math.round(delayS * sampleRateHz)
    const comb = new Float64Array(sound.length)
    for (let n = delay; n < sound.length; n++) {
      comb[n] = sound[n - delay]! + gain * comb[n - delay]!
      echo[n]! += comb[n]! / COMBS.length
    }
  }
  for (const delayS of ALL_PASSES_S) {
    const delay = Math.round(delayS * sampleRateHz)
    const passed = new Float64Array(sound.length)
    for (let n = 0; n < sound.length; n++) {
      const [before, out] = n < delay ? [0, 0] : [echo[n - delay]!, passed[n - delay]!]
      passed[n] = -ALL_PASS_GAIN * echo[n]! + before + ALL_PASS_GAIN * out
    }
    echo = passed
  }
  for (let n = 0; n < sound.length; n++) sound[n]! += part * echo[n]!
}
