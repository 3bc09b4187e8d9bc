// `npm run bench:listen`: the pitch that is heard, beside McLeod's method (pitchy), on the same tones at the same hop. Fails
// where a condition is outside its aim. `-- --ablations` switches the steps of the estimator off, one at a time.
import { randomNormal } from 'd3-random'
import { PitchDetector } from 'pitchy'
import { bowedPartials, pluckedPartials, renderTone, seededSource, type FamilyId, type Tone } from '../core'
import { FIT_OPTIONS, PitchTracker, stretchS, type FitOptions } from '../core/listen/pitch'

const RATE = 44_100
const HOP = 512
const SECONDS = 6
const WINDOWS = [2048, 4096] as const
/** Other seeds than the tests'. */
const SEED = 40_000

const REGISTERS: readonly (readonly [string, FamilyId, number])[] = [
  ['bass B0', 'bass', 30.87],
  ['bass E1', 'bass', 41.2],
  ['cello C2', 'cello', 65.41],
  ['bass G2', 'bass', 98],
  ['viola C3', 'viola', 130.81],
  ['violin G3', 'violin', 196],
  ['violin A4', 'violin', 440],
  ['violin E5', 'violin', 659.26],
  ['violin B6', 'violin', 1975.5],
  ['violin E7', 'violin', 2637],
]

type Condition = 'steady 30 dB' | 'steady 15 dB' | 'vibrato' | 'stiff plucked'
const CONDITIONS: readonly Condition[] = ['steady 30 dB', 'steady 15 dB', 'vibrato', 'stiff plucked']
const AIMS = { steadyBounds: 2, vibratoCents: 0.5, stiffCents: 1.5, grossPart: 0.0002, speed: 3 } as const

interface Tried {
  readonly tone: Tone
  readonly samples: Float64Array
  readonly sigma: number
  /** A plucked string is judged while it sounds. */
  readonly untilS: number
}

function make(condition: Condition, family: FamilyId, hz: number): Tried {
  const isPlucked = condition === 'stiff plucked'
  const tone: Tone = {
    sampleRateHz: RATE,
    seconds: SECONDS,
    frequencyHz: (atS) =>
      condition === 'vibrato' ? hz * 2 ** ((15 * Math.sin(2 * Math.PI * 5.5 * atS)) / 1200) : hz,
    partials: (isPlucked ? pluckedPartials : bowedPartials)(family, hz, 0.45 * RATE),
    ...(isPlucked ? { stiffness: 5e-4, decayS: (k: number) => 1.2 / (1 + 0.15 * k) } : {}),
  }
  const sound = renderTone(tone, seededSource(SEED + hz))
  const power = sound.reduce((sum, v) => sum + v * v, 0) / sound.length
  const sigma = Math.sqrt(power / 10 ** ((condition === 'steady 15 dB' ? 15 : 30) / 10))
  const noise = randomNormal.source(seededSource(SEED + 2 * hz))(0, sigma)
  return { tone, samples: sound.map((v) => v + noise()), sigma, untilS: isPlucked ? 1 : SECONDS }
}

type Estimator = (samples: Float64Array) => readonly { readonly atS: number; readonly hz: number }[]

const ours =
  (fit: FitOptions): Estimator =>
  (samples) => {
    const tracker = new PitchTracker(RATE, { fit })
    return [...tracker.push(samples), ...tracker.end()].map(({ atS, frequencyHz }) => ({
      atS,
      hz: frequencyHz ?? NaN,
    }))
  }

const peer = (window: number): Estimator => {
  const detector = PitchDetector.forFloat64Array(window)
  return (samples) => {
    const told = []
    for (let at = window / 2; at + window / 2 <= samples.length; at += HOP) {
      const [hz] = detector.findPitch(samples.subarray(at - window / 2, at + window / 2), RATE)
      told.push({ atS: at / RATE, hz })
    }
    return told
  }
}

/**
 * The bound of Cramér and Rao for a harmonic series in white noise, cents: var ω ≥ 24 σ² / (N (N² − 1) Σ k² A²) (Rife and Boorstyn
 * 1974 for one sine; Christensen and Jakobsson 2009 for a series), N the samples that the estimator looks at.
 */
function boundCents({ tone, sigma }: Tried, windowS: number): number {
  const n = windowS * RATE
  const slopes = tone.partials.reduce((sum, a, i) => sum + ((i + 1) * a) ** 2, 0)
  const omega = Math.sqrt((24 * sigma ** 2) / (n * (n * n - 1) * slopes))
  return (1200 / Math.LN2) * (omega / ((2 * Math.PI * tone.frequencyHz(0)) / RATE))
}

interface Measured {
  readonly bounds: number
  readonly median: number
  readonly p95: number
  readonly gross: number
  readonly frames: number
  readonly secondsPerSecond: number
}

function measure(tried: Tried, estimator: Estimator, windowS: number): Measured {
  estimator(tried.samples.subarray(0, RATE))
  const from = performance.now()
  const told = estimator(tried.samples)
  const seconds = (performance.now() - from) / 1000
  // Frames whose stretch lies within the tone, for every estimator the same.
  const errors = told
    .filter(({ atS }) => atS > 0.06 && atS < tried.untilS - 0.06)
    .map(({ atS, hz }) => Math.abs(1200 * Math.log2(hz / tried.tone.frequencyHz(atS))))
  const near = errors.filter((e) => e < 50).sort((a, b) => a - b)
  const rms = Math.sqrt(near.reduce((sum, e) => sum + e * e, 0) / near.length)
  return {
    bounds: rms / boundCents(tried, windowS),
    median: near[Math.floor(near.length / 2)] ?? NaN,
    p95: near[Math.floor(0.95 * near.length)] ?? NaN,
    gross: errors.length - near.length,
    frames: errors.length,
    secondsPerSecond: SECONDS / seconds,
  }
}

function cell(
  condition: Condition,
  { bounds, median, p95, gross, frames, secondsPerSecond }: Measured,
): string {
  const accuracy = condition.startsWith('steady') ? `${bounds.toFixed(2)} × bound` : `${median.toFixed(3)}`
  const wrong = gross === 0 ? '' : `, ${((100 * gross) / frames).toFixed(1)} % gross`
  return `${accuracy} (95 %: ${p95.toFixed(2)})${wrong}, ${secondsPerSecond.toFixed(0)} ×`
}

const faults: string[] = []

function compare(): void {
  console.log('| condition | note | ours | peer 2048 | peer 4096 | speed against 2048, 4096 |')
  console.log('|---|---|---|---|---|---:|')
  const speeds: number[][] = [[], []]
  let [gross, frames] = [0, 0]
  for (const condition of CONDITIONS)
    for (const [name, family, hz] of REGISTERS) {
      const tried = make(condition, family, hz)
      const mine = measure(tried, ours(FIT_OPTIONS), stretchS(hz))
      const theirs = WINDOWS.map((window) => measure(tried, peer(window), window / RATE))
      const faster = theirs.map((t) => mine.secondsPerSecond / t.secondsPerSecond)
      faster.forEach((f, i) => speeds[i]!.push(f))
      gross += mine.gross
      frames += mine.frames
      console.log(
        `| ${condition} | ${name} | ${cell(condition, mine)} | ${theirs.map((t) => cell(condition, t)).join(' | ')} | ${faster.map((f) => f.toFixed(1)).join(', ')} |`,
      )
      if (condition.startsWith('steady') && !(mine.bounds <= AIMS.steadyBounds))
        faults.push(`${condition}, ${name}: ${mine.bounds.toFixed(2)} times the bound`)
      if (condition === 'vibrato' && !(mine.median <= AIMS.vibratoCents))
        faults.push(`${condition}, ${name}: ${mine.median.toFixed(2)} cents`)
      if (condition === 'stiff plucked' && !(mine.median <= AIMS.stiffCents))
        faults.push(`${condition}, ${name}: ${mine.median.toFixed(2)} cents`)
      if (condition.startsWith('steady') && mine.gross > 0)
        faults.push(`${condition}, ${name}: ${mine.gross} frames missed`)
    }
  if (gross > AIMS.grossPart * frames)
    faults.push(`${gross} of ${frames} frames are wrong by more than 50 cents`)
  speeds.forEach((s, i) => {
    const mean = Math.exp(s.reduce((sum, f) => sum + Math.log(f), 0) / s.length)
    console.log(`\nSpeed against a window of ${WINDOWS[i]}: ${mean.toFixed(1)} times in the geometric mean.`)
    if (mean < AIMS.speed)
      faults.push(`only ${mean.toFixed(1)} times as fast as the peer with ${WINDOWS[i]} samples`)
  })
}

function ablate(): void {
  const variants: readonly (readonly [string, Partial<FitOptions>])[] = [
    ['all steps', {}],
    ['8 partials', { partials: 8 }],
    ['no bend', { bends: false }],
    ['no stiffness', { stiff: false }],
    ['no cleaning', { cleans: false }],
  ]
  console.log(`| condition | note | ${variants.map(([name]) => name).join(' | ')} |`)
  console.log(`|---|---|${variants.map(() => '---').join('|')}|`)
  for (const condition of CONDITIONS)
    for (const [name, family, hz] of REGISTERS.filter((_, i) => i % 2 === 1)) {
      const tried = make(condition, family, hz)
      const cells = variants.map(([, options]) =>
        cell(condition, measure(tried, ours({ ...FIT_OPTIONS, ...options }), stretchS(hz))),
      )
      console.log(`| ${condition} | ${name} | ${cells.join(' | ')} |`)
    }
}

if (process.argv.includes('--ablations')) ablate()
else compare()
for (const fault of faults) console.error(`Outside its aim: ${fault}.`)
if (faults.length > 0) process.exitCode = 1
