import type { RandomSource } from './player'

/** One tone of a string, without body, bow or room. */
export interface Tone {
  readonly sampleRateHz: number
  readonly seconds: number
  /** Of partial 1, at a time from the tone's beginning. */
  readonly frequencyHz: (atS: number) => number
  /** Of partial 1, 2, 3 …; those above half the sampling rate are left out. */
  readonly partials: readonly number[]
  /** B of a stiff string: partial k lies at k f √((1 + Bk²)/(1 + B)); 0 for a bowed one, whose partials are whole multiples. */
  readonly stiffness?: number
  /** Seconds in which partial k falls to 1/e; for ever without it. */
  readonly decayS?: (k: number) => number
}

/**
 * The samples of a tone, its partials beginning at phases from `random`.
 * Source of the stiff partials: H. Fletcher, Normal vibration frequencies of a stiff piano string, J. Acoust. Soc. Am. 36 (1964) 203.
 */
export function renderTone(tone: Tone, random: RandomSource): Float64Array {
  const { sampleRateHz, partials, frequencyHz, stiffness = 0, decayS } = tone
  const length = Math.round(tone.seconds * sampleRateHz)
  const output = new Float64Array(length)
  const phase = new Float64Array(length)
  let turns = 0
  let highestHz = 0
  for (let i = 0; i < length; i++) {
    // The frequency in the middle of a step: its integral is then exact for a glide.
    const hz = frequencyHz((i + 0.5) / sampleRateHz)
    phase[i] = turns
    turns += hz / sampleRateHz
    if (hz > highestHz) highestHz = hz
  }
  partials.forEach((amplitude, i) => {
    const k = i + 1
    const stretch = k * Math.sqrt((1 + stiffness * k * k) / (1 + stiffness))
    const start = random()
    if (stretch * highestHz >= sampleRateHz / 2) return
    const fall = decayS ? Math.exp(-1 / (decayS(k) * sampleRateHz)) : 1
    let level = amplitude
    for (let n = 0; n < length; n++) {
      output[n]! += level * Math.cos(2 * Math.PI * (start + stretch * phase[n]!))
      level *= fall
    }
  })
  return output
}
