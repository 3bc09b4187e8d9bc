import { randomNormal } from 'd3-random'
import { PitchDetector } from 'pitchy'
import { describe, expect, it } from 'vitest'
import type { FamilyId } from '../../instrument'
import { bowedPartials, pluckedPartials, renderTone, seededSource, type Tone } from '../../simulate'
import { HalfBand } from './half-band'
import { HarmonicFitter } from './harmonic-fit'
import { PitchTracker, stretchS, type PitchFrame } from './index'
import { Samples } from './samples'

const RATE = 44_100

/** Lowest and highest strings of the four families, and a violin's seventh position. */
const NOTES: readonly (readonly [FamilyId, number])[] = [
  ['bass', 30.87],
  ['bass', 41.2],
  ['cello', 65.41],
  ['viola', 130.81],
  ['violin', 440],
  ['violin', 2637],
]

interface Heard {
  readonly frames: readonly PitchFrame[]
  /** Errors of the frames whose stretch lies within the tone, cents. */
  readonly errors: readonly number[]
}

function tone(family: FamilyId, hz: number, more: Partial<Tone> = {}): Tone {
  return {
    sampleRateHz: RATE,
    seconds: 0.8,
    frequencyHz: () => hz,
    partials: bowedPartials(family, hz, 0.45 * RATE),
    ...more,
  }
}

/** White noise `noiseDb` below the sound, and its standard deviation. */
function noisy(sound: Float64Array, noiseDb: number, seed: number) {
  const power = sound.reduce((sum, v) => sum + v * v, 0) / sound.length
  const sigma = Math.sqrt(power / 10 ** (noiseDb / 10))
  const noise = randomNormal.source(seededSource(seed))(0, sigma)
  return { samples: sound.map((v) => v + noise()), sigma }
}

function hear(sound: Tone, samples: Float64Array): Heard {
  const tracker = new PitchTracker(sound.sampleRateHz)
  const frames = [...tracker.push(samples), ...tracker.end()]
  const half = stretchS(sound.frequencyHz(0)) / 2 + 0.025
  const within = frames.filter((f) => f.atS > half && f.atS < sound.seconds - half)
  expect(within.length).toBeGreaterThan(20)
  return {
    frames,
    errors: within.map((f) => 1200 * Math.log2((f.frequencyHz ?? 1) / sound.frequencyHz(f.atS))),
  }
}

const rms = (values: readonly number[]) =>
  Math.sqrt(values.reduce((sum, v) => sum + v * v, 0) / values.length)
const middle = (values: readonly number[]) =>
  values.map(Math.abs).sort((a, b) => a - b)[Math.floor(values.length / 2)]!

/**
 * Least standard deviation of a frequency told from the stretch the tracker looks at, cents: of a harmonic series in white
 * noise, var ω ≥ 24 σ² / (N (N² − 1) Σ k² A²). Source: D. C. Rife and R. R. Boorstyn, IEEE Trans. Inf. Theory 20 (1974) 591,
 * for one sine; M. G. Christensen and A. Jakobsson, Multi-Pitch Estimation (2009), § 1.4, for a series.
 */
function boundCents({ partials, sampleRateHz, frequencyHz }: Tone, sigma: number): number {
  const hz = frequencyHz(0)
  const n = stretchS(hz) * sampleRateHz
  const slopes = partials.reduce((sum, a, i) => sum + ((i + 1) * a) ** 2, 0)
  const omega = Math.sqrt((24 * sigma ** 2) / (n * (n * n - 1) * slopes))
  return (1200 / Math.LN2) * (omega / ((2 * Math.PI * hz) / sampleRateHz))
}

describe('the pitch of a steady bowed string', () => {
  it.each([30, 15])(
    'at %i dB is off by no more than twice the bound of Cramér and Rao, and no frame is missed',
    (db) => {
      for (const [family, hz] of NOTES) {
        const made = tone(family, hz)
        const { samples, sigma } = noisy(renderTone(made, seededSource(hz + db)), db, hz)
        const { errors } = hear(made, samples)
        expect(Math.max(...errors.map(Math.abs)), `${hz} Hz`).toBeLessThan(50)
        expect(rms(errors) / boundCents(made, sigma), `${hz} Hz`).toBeLessThan(2)
      }
    },
  )

  it('says how sure it is: its own ± is that of its errors', () => {
    const made = tone('violin', 330, { seconds: 3 })
    const { samples } = noisy(renderTone(made, seededSource(5)), 15, 6)
    const { frames, errors } = hear(made, samples)
    const told = middle(frames.filter((f) => f.frequencyHz !== null).map((f) => f.sigmaCents))
    expect(rms(errors) / told).toBeGreaterThan(0.7)
    expect(rms(errors) / told).toBeLessThan(1.5)
  })

  it('is the one that McLeod’s method tells of the same tone (pitchy), and nearer to the truth', () => {
    const peer = PitchDetector.forFloat64Array(4096)
    for (const [family, hz] of NOTES.slice(1)) {
      const made = tone(family, hz)
      const { samples } = noisy(renderTone(made, seededSource(hz)), 20, hz)
      const at = Math.round(0.4 * RATE)
      const [theirs] = peer.findPitch(samples.slice(at - 2048, at + 2048), RATE)
      expect(Math.abs(1200 * Math.log2(theirs / hz))).toBeLessThan(5)
      expect(rms(hear(made, samples).errors)).toBeLessThan(0.4)
    }
  })
})

describe('the pitch of a string that is not steady', () => {
  it('is followed through a vibrato, to half a cent', () => {
    for (const [family, hz] of NOTES) {
      const swinging = tone(family, hz, {
        seconds: 1.2,
        frequencyHz: (atS) => hz * 2 ** ((15 * Math.sin(2 * Math.PI * 5.5 * atS)) / 1200),
      })
      const { samples } = noisy(renderTone(swinging, seededSource(hz)), 30, hz)
      expect(middle(hear(swinging, samples).errors), `${hz} Hz`).toBeLessThan(0.5)
    }
  })

  it('is that of partial 1, however stiff the plucked string', () => {
    for (const [family, hz] of NOTES.slice(1)) {
      const stiff = tone(family, hz, {
        partials: pluckedPartials(family, hz, 0.45 * RATE),
        stiffness: 5e-4,
        decayS: (k) => 1.2 / (1 + 0.15 * k),
      })
      const { samples } = noisy(renderTone(stiff, seededSource(hz)), 30, hz)
      const { frames, errors } = hear(stiff, samples)
      expect(middle(errors), `${hz} Hz`).toBeLessThan(1.5)
      // Fletcher's B is found again where there are partials enough to show it.
      const found = middle(frames.filter((f) => f.stiffness > 0).map((f) => f.stiffness))
      if (hz < 1000) expect(found).toBeCloseTo(5e-4, 4)
    }
  })

  it('is told of a glide of an octave in a second without a gap', () => {
    const sliding = tone('cello', 110, { seconds: 1.2, frequencyHz: (atS) => 110 * 2 ** Math.min(1, atS) })
    const { errors } = hear(sliding, renderTone(sliding, seededSource(8)))
    expect(Math.max(...errors.map(Math.abs))).toBeLessThan(12)
    expect(middle(errors)).toBeLessThan(1)
  })

  it('whose fundamental is all but missing is not taken for its octave', () => {
    const hz = 41.2
    const partials = bowedPartials('bass', hz, 4000).map((a, i) => (i === 0 ? a / 100 : a))
    const made = tone('bass', hz, { partials })
    const { samples } = noisy(renderTone(made, seededSource(2)), 15, 3)
    expect(Math.max(...hear(made, samples).errors.map(Math.abs))).toBeLessThan(10)
  })
})

describe('a tracker', () => {
  const made = tone('viola', 220, { seconds: 0.6 })
  const samples = noisy(renderTone(made, seededSource(9)), 25, 10).samples

  it('tells the same of blocks of 128, of odd ones and of the whole', () => {
    const inBlocks = (size: number) => {
      const tracker = new PitchTracker(RATE)
      const frames: PitchFrame[] = []
      for (let i = 0; i < samples.length; i += size)
        frames.push(...tracker.push(samples.subarray(i, i + size)))
      return [...frames, ...tracker.end()]
    }
    const whole = inBlocks(samples.length)
    expect(whole.length).toBe(Math.ceil(samples.length / 512))
    expect(inBlocks(128)).toEqual(whole)
    expect(inBlocks(997)).toEqual(whole)
  })

  it.each([22_050, 44_100, 48_000, 96_000, 192_000])('tells of a moment within 60 ms, at %i Hz', (rate) => {
    const at = { ...made, sampleRateHz: rate }
    const sound = renderTone(at, seededSource(1))
    const tracker = new PitchTracker(rate)
    let latest = 0
    for (let i = 0; i + 128 <= sound.length; i += 128)
      for (const frame of tracker.push(sound.subarray(i, i + 128)))
        latest = Math.max(latest, (i + 128) / rate - frame.atS)
    expect(latest).toBeGreaterThan(0.02)
    expect(latest).toBeLessThan(0.06)
    expect(rms(hear(at, sound).errors)).toBeLessThan(0.2)
  })

  it('keeps a fifth of a second or so, however long it listens', () => {
    const kept = new Samples(1000)
    const block = new Float64Array(700)
    for (let i = 0; i < 100; i++) kept.append(block, block.length)
    expect(kept.data.length).toBe(4000)
    expect(kept.end).toBe(70_000)
    expect(kept.end - kept.first).toBeGreaterThanOrEqual(1000)
  })

  it('halves a rate: what fits in the half is kept, what would fold back is taken out', () => {
    const through = (frequency: number) => {
      const input = new Samples(5000)
      const half = new HalfBand(input, 5000)
      input.append(
        Float64Array.from({ length: 4000 }, (_, n) => Math.cos(2 * Math.PI * frequency * n)),
        4000,
      )
      half.run()
      return rms([...half.output.view(100, 1900)]) * Math.SQRT2
    }
    for (const frequency of [0.01, 0.1, 0.18]) expect(through(frequency)).toBeCloseTo(1, 2)
    for (const frequency of [0.32, 0.35, 0.45]) expect(through(frequency)).toBeLessThan(10 ** (-55 / 20))
  })

  it('refuses rates that it does not hear and samples that are none', () => {
    expect(() => new PitchTracker(4000)).toThrow('4000 Hz is outside 8000 … 192000 Hz')
    expect(() => new PitchTracker(NaN)).toThrow(RangeError)
    const tracker = new PitchTracker(RATE)
    tracker.push(new Float64Array(300))
    expect(() => tracker.push([0, NaN])).toThrow('sample 301 is NaN')
  })
})

describe('no pitch', () => {
  const pitchesOf = (samples: Float64Array, rate = RATE) => {
    const tracker = new PitchTracker(rate)
    return [...tracker.push(samples), ...tracker.end()].filter((f) => f.frequencyHz !== null).length
  }
  const noise = (seconds: number) => {
    const normal = randomNormal.source(seededSource(77))(0, 0.1)
    return Float64Array.from({ length: seconds * RATE }, normal)
  }

  it('is told of silence, a constant offset or noise', () => {
    expect(pitchesOf(new Float64Array(RATE))).toBe(0)
    expect(pitchesOf(new Float64Array(RATE).fill(0.4))).toBe(0)
    expect(pitchesOf(noise(3))).toBe(0)
  })

  it('is told of a click in silence: a fit of it has a number, or is none', () => {
    const source = seededSource(1)
    const fitter = new HarmonicFitter(700)
    for (let t = 0; t < 400; t++) {
      const samples = new Float64Array(300 + Math.floor(source() * 300))
      const period = 20 + source() * 60
      const from = Math.floor(source() * samples.length)
      samples.subarray(from, from + 1 + Math.floor(source() * 40)).forEach((_, i) => {
        samples[from + i] = source() - 0.5
      })
      const fit = fitter.fit(samples, period)
      if (fit) expect(Number.isFinite(fit.omega)).toBe(true)
    }
    expect(fitter.fit(new Float64Array(400).fill(0.1), NaN)).toBeUndefined()
  })

  it('is told of noise with the spectrum and the syllables of speech', () => {
    // Unvoiced speech: noise through a pole at 500 Hz, four syllables a second.
    let pole = 0
    const speech = noise(3).map((v, i) => {
      pole += (2 * Math.PI * 500 * (v - pole)) / RATE
      return pole * Math.max(0, Math.sin((2 * Math.PI * 4 * i) / RATE))
    })
    expect(pitchesOf(speech) / (3 * 86)).toBeLessThan(0.05)
  })

  it.each([
    ['a fifth', 3 / 2],
    ['a major third', 5 / 4],
    ['a sixth out of tune', 1.65],
  ])('is told of two strings %s apart: they are heard as two', (_, ratio) => {
    const upper = renderTone(tone('violin', 293.66 * ratio), seededSource(2))
    const both = renderTone(tone('violin', 293.66), seededSource(1)).map((v, i) => v + upper[i]!)
    const tracker = new PitchTracker(RATE)
    const frames = [...tracker.push(both), ...tracker.end()].filter((f) => f.atS > 0.1 && f.atS < 0.7)
    expect(frames.filter((f) => f.frequencyHz !== null).length).toBeLessThan(frames.length / 10)
    expect(frames.filter((f) => f.otherHz !== null).length).toBeGreaterThan(frames.length * 0.7)
  })
})

describe('a pitch all the same', () => {
  const made = tone('cello', 146.83)
  const clean = renderTone(made, seededSource(4)).map((v) => 0.2 * v)

  it('is told of clipped sound, beside mains hum, and with an offset', () => {
    const spoilt = {
      clipped: clean.map((v) => Math.max(-0.15, Math.min(0.15, v))),
      hum: clean.map((v, i) => v + 0.02 * Math.sin((2 * Math.PI * 50 * i) / RATE)),
      offset: clean.map((v) => v + 0.5),
    }
    for (const [name, samples] of Object.entries(spoilt))
      expect(Math.max(...hear(made, samples).errors.map(Math.abs)), name).toBeLessThan(3)
  })

  it('is told at 8 kHz', () => {
    const coarse = { ...made, sampleRateHz: 8000, partials: made.partials.slice(0, 20) }
    expect(rms(hear(coarse, renderTone(coarse, seededSource(4))).errors)).toBeLessThan(0.2)
  })
})
