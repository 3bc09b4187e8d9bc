import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import FFT from 'fft.js'
import { parseWav, type RandomSource } from '../../core'
import { aptInstall, findProgram } from '../../scripts/lib/apt'
import { resample } from './resample'

/** What a sound is heard in; each adds to a copy. Levels are dB below the sound's own root mean square. */
export type Surroundings = (samples: Float64Array, sampleRateHz: number, source: RandomSource) => Float64Array

export const noise =
  (belowDb: number): Surroundings =>
  (samples, _rate, source) => {
    const level = rms(samples) * 10 ** (-belowDb / 20) * Math.sqrt(12 / 4)
    return samples.map((v) => v + level * (source() + source() + source() + source() - 2) * 1)
  }

/** Of a mains transformer: 50 Hz and its multiples. */
export const hum =
  (belowDb: number, hz = 50): Surroundings =>
  (samples, rate) => {
    const parts = [0.6, 1, 0.35, 0.5, 0.2, 0.25]
    const size = Math.sqrt(parts.reduce((sum, p) => sum + p * p, 0) / 2)
    const level = (rms(samples) * 10 ** (-belowDb / 20)) / size
    return samples.map(
      (v, n) =>
        v +
        level *
          parts.reduce((sum, p, k) => sum + p * Math.sin((2 * Math.PI * hz * (k + 1) * n) / rate + k), 0),
    )
  }

/**
 * A room of `seconds` reverberation time (to −60 dB): noise that dies away (J.-D. Polack's model), its power `wetDb` beside the
 * direct sound's.
 */
export const room =
  (seconds: number, wetDb: number): Surroundings =>
  (samples, rate, source) => {
    const count = Math.round(seconds * rate)
    const decay = Math.log(1000) / count
    const response = Float64Array.from({ length: count }, (_, i) =>
      i < 0.008 * rate ? 0 : (source() + source() + source() - 1.5) * Math.exp(-decay * i),
    )
    const size = Math.sqrt(response.reduce((sum, v) => sum + v * v, 0))
    const wet = convolve(
      samples,
      response.map((v) => (v / size) * 10 ** (wetDb / 20)),
    )
    return Float64Array.from({ length: samples.length }, (_, i) => samples[i]! + wet[i]!)
  }

/** A dropped pencil every second. */
export const clicks =
  (aboveDb: number): Surroundings =>
  (samples, rate, source) => {
    const level = rms(samples) * 10 ** (aboveDb / 20)
    return samples.map((v, i) => {
      const since = (i % rate) / rate
      return since < 0.02 ? v + level * (2 * source() - 1) * Math.exp(-since / 0.003) : v
    })
  }

/** Another sound that is heard as well. */
export const beside =
  (other: Float64Array, belowDb: number): Surroundings =>
  (samples) => {
    const level = (rms(samples) / rms(other)) * 10 ** (-belowDb / 20)
    return samples.map((v, i) => v + level * other[i % other.length]!)
  }

/** A mute on the bridge: little is left of what lies above a kilohertz. */
export const muted: Surroundings = (samples, rate) => {
  const a = Math.exp((-2 * Math.PI * 900) / rate)
  let [first, second] = [0, 0]
  return samples.map((v) => {
    first = a * first + (1 - a) * v
    return (second = a * second + (1 - a) * first)
  })
}

/** A wolf: body and string hand the sound to each other and back, so many times a second. */
export const wolf =
  (hz: number, depth = 0.8): Surroundings =>
  (samples, rate) =>
    samples.map((v, n) => v * (1 - (depth / 2) * (1 - Math.cos((2 * Math.PI * hz * n) / rate))))

/** A bow that leaves the string for some hundredths of a second, two or three times in each second. */
export const skipping: Surroundings = (samples, rate, source) => {
  const out = samples.slice()
  for (let at = 0.3 * rate; at < out.length; at += (0.3 + 0.3 * source()) * rate) {
    const [from, lasts] = [Math.round(at), Math.round(0.04 * rate)]
    for (let n = 0; n < lasts && from + n < out.length; n++)
      out[from + n]! *= 1 - 0.97 * Math.sin((Math.PI * n) / lasts) ** 0.5
  }
  return out
}

/** What telephones do to everything that is held: within a third of a second it is taken for noise, and turned down by 20 dB. */
export const suppressed: Surroundings = (samples, rate) => {
  const [fastS, slowS] = [0.02, 0.3]
  let [fast, slow] = [1e-9, 1e-9]
  return samples.map((v) => {
    const power = v * v
    fast += (power - fast) / (fastS * rate)
    slow += (power - slow) / (slowS * rate)
    const held = Math.min(1, slow / (fast + 1e-12))
    return v * 10 ** -(held ** 4)
  })
}

/** The other strings, a family's open ones (cents above 440 Hz), ring on with what is played, 20 dB softer. */
export const ringing =
  (openCents: readonly number[], belowDb = 20): Surroundings =>
  (samples, rate) => {
    const out = samples.slice()
    for (const cents of openCents) {
      const delay = Math.round(rate / (440 * 2 ** (cents / 1200)))
      const ring = new Float64Array(samples.length)
      // Dies by 60 dB in a second and a half.
      const feedback = 10 ** ((-3 * delay) / (1.5 * rate))
      for (let n = delay; n < ring.length; n++) ring[n] = samples[n]! * 0.02 + feedback * ring[n - delay]!
      const level = (rms(samples) / Math.max(1e-9, rms(ring))) * 10 ** (-belowDb / 20)
      for (let n = 0; n < out.length; n++) out[n]! += level * ring[n]!
    }
    return out
  }

let spoken: Float64Array | undefined

/** Somebody who talks (Debian's espeak-ng), at this rate. */
export function voice(rate: number): Float64Array {
  if (!findProgram('espeak-ng')) aptInstall(['espeak-ng'], 'Install espeak-ng in another way.')
  if (!spoken) {
    const folder = mkdtempSync(join(tmpdir(), 'jadefell-voice-'))
    const path = join(folder, 'voice.wav')
    const words =
      'Now once more from the beginning, slowly, and listen to the third finger before you go on. Good. And now the other string.'
    const done = spawnSync('espeak-ng', ['-w', path, '-s', '150', words], { encoding: 'utf8' })
    if (done.status !== 0) throw new Error(`espeak-ng: ${done.stderr}`)
    const read = parseWav(readFileSync(path))
    rmSync(folder, { recursive: true })
    if (!read.ok) throw new Error(read.fault.code)
    spoken = resample(Float64Array.from(read.samples), 1, read.format.sampleRateHz, rate)
  }
  return spoken
}

export function rms(samples: Float64Array): number {
  let sum = 0
  let count = 0
  for (const v of samples)
    if (v !== 0) {
      sum += v * v
      count++
    }
  return Math.sqrt(sum / Math.max(1, count))
}

function convolve(a: Float64Array, b: Float64Array): Float64Array {
  const size = 2 ** Math.ceil(Math.log2(a.length + b.length))
  const fft = new FFT(size)
  const spectrum = (x: Float64Array) => {
    const padded = new Array<number>(size).fill(0)
    x.forEach((v, i) => (padded[i] = v))
    const out = fft.createComplexArray()
    fft.realTransform(out, padded)
    fft.completeSpectrum(out)
    return out
  }
  const [x, y] = [spectrum(a), spectrum(b)]
  const product = fft.createComplexArray()
  for (let i = 0; i < 2 * size; i += 2) {
    product[i] = x[i]! * y[i]! - x[i + 1]! * y[i + 1]!
    product[i + 1] = x[i]! * y[i + 1]! + x[i + 1]! * y[i]!
  }
  const out = fft.createComplexArray()
  fft.inverseTransform(out, product)
  return Float64Array.from({ length: a.length }, (_, i) => out[2 * i]!)
}
