/** Zero crossings of the sinc on one side. */
const REACH = 24

/**
 * The sound at times that run through it at `speed` (1: as it is; a number, or a function of the output's time in seconds), by
 * a sinc under Hann's window: at a speed of 2^(c/1200) it sounds c cents higher. Above 1, what would fold back is taken out.
 * Source: J. O. Smith, Digital Audio Resampling Home Page, CCRMA, Stanford (bandlimited interpolation).
 *
 * @param toRateHz sampling rate of the output, where it is another.
 */
export function resample(
  samples: Float64Array,
  speed: number | ((atS: number) => number),
  fromRateHz: number,
  toRateHz: number = fromRateHz,
): Float64Array {
  const speedAt = typeof speed === 'number' ? () => speed : speed
  const perOutput = fromRateHz / toRateHz
  const output: number[] = []
  let at = 0
  while (at < samples.length - 1) {
    const step = speedAt(output.length / toRateHz) * perOutput
    const band = Math.min(1, 1 / step) * 0.97
    const reach = REACH / band
    const first = Math.max(0, Math.ceil(at - reach))
    const last = Math.min(samples.length - 1, Math.floor(at + reach))
    let sum = 0
    for (let i = first; i <= last; i++) {
      const x = at - i
      const sinc = x === 0 ? band : Math.sin(Math.PI * band * x) / (Math.PI * x)
      sum += samples[i]! * sinc * (0.5 + 0.5 * Math.cos((Math.PI * x) / reach))
    }
    output.push(sum)
    at += step
  }
  return Float64Array.from(output)
}

/** As much faster as makes it sound this much higher. */
export function bendRatio(cents: number): number {
  return 2 ** (cents / 1200)
}
