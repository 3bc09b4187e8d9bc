import { median } from 'd3-array'
import { theilSen } from '../../frame'
import { stretchS } from '../pitch'
import type { HeardNote, HeardPitch } from './heard-note'
import { findVibrato } from './vibrato'

/** A frame with a pitch. */
export interface VoicedFrame {
  readonly atS: number
  /** Above 440 Hz. */
  readonly cents: number
  readonly sigmaCents: number
  readonly confidence: number
  readonly levelDb: number
  /** Of the sound's slope against the sound itself: high partials weigh more in it. */
  readonly brightnessDb: number
  readonly stiffness: number
}

interface NoteFacts {
  /** The note’s plateau. */
  readonly cents: number
  readonly startS: number
  readonly endS: number
  readonly begins: HeardNote['begins']
  readonly hopS: number
}

/**
 * What a landing is read from. An attack has a scoop of its own, most of it within its first tenth of a second and while the string
 * is not yet loud; the ear needs a quarter of a second to hear a note and begin to mend it. Between them lies what the finger did:
 * moments count fully from `risenS` to `fallsS` after the note began, and more the louder they are.
 */
export const LANDING = {
  risesS: 0.045,
  risenS: 0.12,
  fallsS: 0.21,
  fallenS: 0.29,
  /** Later by so many periods: what a low string needs longer to speak. */
  laterPeriods: 3,
  /** What is moving all the while landed at no one moment: its slope over this time is part of its ±, seconds. */
  aboutS: 0.03,
  /** Power of the moment's own power (1: as its energy) by which it counts. */
  byPower: 1.2,
  /** Moments further than this from the others count for nothing (Tukey's biweight), cents. */
  strayCents: 30,
} as const
/** The part of a note, from its end, that says where it was left. */
const SETTLED_PART = 0.4
const SETTLED_AT_MOST_S = 0.4
/** The string needs so long to speak after its attack, and dies away before its end. */
const SPEAKS_S = 0.02
/** A sound beside it of as much power may pull a pitch by about so much. */
const COMPANY_CENTS = 15
/** What no single note is known better than: the bow's friction. */
const LEAST_SIGMA_CENTS = 0.25
/** Frames of a held note from which its slope is read; more are thinned out to so many. */
const DRIFT_POINTS = 40

/** Everything that is read from the frames of one note; undefined where none of them lies within it. */
export function measureNote(frames: readonly VoicedFrame[], facts: NoteFacts): HeardNote | undefined {
  const { startS, endS, begins, hopS } = facts
  const within = clearOfEdges(frames, facts)
  if (within.length === 0) return undefined
  const vibrato = findVibrato(within)
  const landing = landingOf(within, facts, vibrato?.rateHz)
  const settled = vibrato
    ? { ...pitchOf(within, hopS), cents: vibrato.centreCents }
    : settledOf(within, endS - startS, hopS)
  const held = within.filter((f) => f.atS >= settled.fromS)
  return {
    startS,
    endS,
    landing,
    settled,
    glideCents: settled.cents - landing.cents,
    vibrato,
    wobbleCents: wobbleOf(held, vibrato?.rateHz),
    driftCentsPerS: driftOf(held),
    levelDb: Math.max(...frames.map((f) => f.levelDb)),
    begins,
    confidence: median(within, (f) => f.confidence)!,
    brightnessDb: brightnessOf(within),
  }
}

/** Six decibels for each octave that the note lies higher are of its pitch, and no brightness. */
function brightnessOf(frames: readonly VoicedFrame[]): number {
  return median(frames, (f) => f.brightnessDb - 20 * Math.log10(2 ** (f.cents / 1200)))!
}

/** The frames whose stretch of sound lies within the note, as far as there are any; else those next to its middle. */
function clearOfEdges(frames: readonly VoicedFrame[], { startS, endS, hopS }: NoteFacts): VoicedFrame[] {
  const typical = median(frames, (f) => f.cents)
  if (typical === undefined) return []
  const half = stretchS(440 * 2 ** (typical / 1200)) / 2
  // A plucked string is stiff all along: a frame that took its partials for whole multiples is off by what they are stretched.
  const stiff = frames.filter((f) => f.stiffness > 0)
  const alike = stiff.length > frames.length / 2 ? stiff : frames
  const near = alike.filter((f) => Math.abs(f.cents - typical) < 120)
  const clear = near.filter((f) => f.atS - half >= startS + SPEAKS_S - hopS && f.atS + half <= endS)
  if (clear.length >= 3) return clear
  const middle = (startS + endS) / 2
  return [...near]
    .sort((a, b) => Math.abs(a.atS - middle) - Math.abs(b.atS - middle))
    .slice(0, 3)
    .sort((a, b) => a.atS - b.atS)
}

/**
 * Where the finger came down: the mean of the moments between the attack and the ear's first chance to mend, weighed as
 * {@link LANDING} says, strays left out. Every weight is smooth in time, level and pitch, so that the same playing heard otherwise (at
 * another rate, softer, in a longer file) lands in the same place. In a vibrato its own swing is fitted beside the mean.
 */
function landingOf(frames: readonly VoicedFrame[], facts: NoteFacts, vibratoHz?: number): HeardPitch {
  const weights = landingWeights(frames, facts, vibratoHz)
  const used = frames.flatMap((frame, i) => (weights[i]! > 1e-6 ? [{ frame, weight: weights[i]! }] : []))
  if (used.length < 3) return pitchOf(frames.slice(0, 3), facts.hopS)
  const centre = weightedMedian(used)
  const kept = used.map(({ frame, weight }) => {
    const stray = (frame.cents - centre) / LANDING.strayCents
    return { frame, weight: weight * Math.max(0, 1 - stray * stray) ** 2 }
  })
  const { mean, scatter, slope, size } = weightedMean(kept, vibratoHz)
  const [fromS, toS] = [used[0]!.frame.atS, used.at(-1)!.frame.atS]
  const apart = Math.max(1, (size * facts.hopS) / stretchS(440 * 2 ** (mean / 1200)))
  const noise = median(used, ({ frame }) => frame.sigmaCents)!
  const sigmaCents = Math.hypot(
    Math.max(scatter, noise) / Math.sqrt(apart),
    LEAST_SIGMA_CENTS,
    slope * LANDING.aboutS,
    // What is not of the pitch may be of another one.
    COMPANY_CENTS * (1 - median(used, ({ frame }) => frame.confidence)!),
  )
  return { cents: mean, sigmaCents, fromS, toS }
}

function landingWeights(
  frames: readonly VoicedFrame[],
  { startS, endS, cents }: NoteFacts,
  vibratoHz: number | undefined,
): number[] {
  // A short note has less time for everything; a swing is asked for a whole turn.
  const { risesS, risenS, fallsS, fallenS, byPower, laterPeriods } = LANDING
  const laterS = laterPeriods / (440 * 2 ** (cents / 1200))
  const scale = Math.min(1, (endS - startS) / (fallenS + laterS + 0.03))
  const turnS = vibratoHz === undefined ? 0 : 1 / vibratoHz
  const longer = Math.max(0, risesS + turnS - fallsS)
  const shape = (atS: number) =>
    smooth((atS / scale - laterS - risesS) / (risenS - risesS)) *
    smooth((fallenS + laterS + longer - atS / scale) / (fallenS - fallsS))
  const loudest = Math.max(...frames.map((f) => (shape(f.atS - startS) > 0 ? f.levelDb : -Infinity)))
  return frames.map(
    ({ atS, levelDb, confidence }) =>
      shape(atS - startS) * confidence ** 2 * 10 ** ((byPower * Math.min(0, levelDb - loudest)) / 10),
  )
}

/** From 0 at 0 to 1 at 1 without a corner. */
function smooth(x: number): number {
  const t = Math.max(0, Math.min(1, x))
  return t * t * (3 - 2 * t)
}

interface Weighed {
  readonly frame: VoicedFrame
  readonly weight: number
}

function weightedMedian(weighed: readonly Weighed[]): number {
  const sorted = [...weighed].sort((a, b) => a.frame.cents - b.frame.cents)
  let left = sorted.reduce((sum, { weight }) => sum + weight, 0) / 2
  // Between the two about the middle, by how much of each lies on either side: no leap where one overtakes another.
  for (let i = 0; i < sorted.length; i++) {
    const { frame, weight } = sorted[i]!
    if (left > weight) left -= weight
    else {
      const next = sorted[i + 1]?.frame.cents ?? frame.cents
      const before = sorted[i - 1]?.frame.cents ?? frame.cents
      const part = left / weight - 0.5
      return frame.cents + (part < 0 ? (frame.cents - before) * part : (next - frame.cents) * part)
    }
  }
  return sorted.at(-1)!.frame.cents
}

/**
 * Weighted mean, a slope and, of this rate, a swing fitted beside it; what is left as a standard deviation, and how many moments it
 * stands on.
 */
function weightedMean(weighed: readonly Weighed[], vibratoHz?: number) {
  const sum = weighed.reduce((total, { weight }) => total + weight, 0)
  const squares = weighed.reduce((total, { weight }) => total + weight * weight, 0)
  const middleS = weighed.reduce((total, { frame, weight }) => total + weight * frame.atS, 0) / sum
  const basis = ({ frame: { atS } }: Weighed) => {
    const turn = 2 * Math.PI * (vibratoHz ?? 0) * atS
    const line = [1, (atS - middleS) / SLOPE_UNIT_S]
    return vibratoHz === undefined ? line : [...line, Math.cos(turn), Math.sin(turn)]
  }
  const first = weighed[0]!.frame.cents
  const fitted = leastSquares(
    weighed.map(basis),
    weighed.map(({ frame }) => frame.cents - first),
    weighed.map(({ weight }) => weight),
  )
  const left = weighed.reduce((total, w) => {
    const off = w.frame.cents - first - basis(w).reduce((y, b, i) => y + b * fitted[i]!, 0)
    return total + w.weight * off * off
  }, 0)
  const slope = fitted[1]! / SLOPE_UNIT_S
  return { mean: first + fitted[0]!, slope, scatter: Math.sqrt(left / sum), size: (sum * sum) / squares }
}

/** Keeps the columns of the fit about as large as each other. */
const SLOPE_UNIT_S = 0.05
/** Part of the sum of weights by which a swing must be seen: less than a turn of it tells nothing of its middle. */
const SWING_RIDGE = 0.02

/** Weighted least squares by the normal equations; all columns but the first a little drawn to 0. */
function leastSquares(rows: readonly number[][], y: readonly number[], weights: readonly number[]): number[] {
  const n = rows[0]!.length
  const a = Array.from({ length: n }, () => new Array<number>(n + 1).fill(0))
  rows.forEach((row, k) => {
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < n; j++) a[i]![j]! += weights[k]! * row[i]! * row[j]!
      a[i]![n]! += weights[k]! * row[i]! * y[k]!
    }
  })
  for (let i = 1; i < n; i++) a[i]![i]! += SWING_RIDGE * a[0]![0]!
  for (let i = 0; i < n; i++)
    for (let r = 0; r < n; r++) {
      if (r === i) continue
      const by = a[r]![i]! / a[i]![i]!
      for (let j = i; j <= n; j++) a[r]![j]! -= by * a[i]![j]!
    }
  return a.map((row, i) => row[n]! / row[i]!)
}

function settledOf(frames: readonly VoicedFrame[], lastsS: number, hopS: number): HeardPitch {
  const endS = frames.at(-1)!.atS
  const from = endS - Math.min(SETTLED_AT_MOST_S, lastsS * SETTLED_PART)
  const last = frames.filter((f) => f.atS >= from)
  return pitchOf(last.length > 0 ? last : frames.slice(-1), hopS)
}

/** The median of frames that say one pitch. Stretches overlap: as many count as would lie side by side. */
function pitchOf(frames: readonly VoicedFrame[], hopS: number): HeardPitch {
  const cents = median(frames, (f) => f.cents)!
  const [fromS, toS] = [frames[0]!.atS, frames.at(-1)!.atS]
  const apart = Math.max(1, (toS - fromS + hopS) / stretchS(440 * 2 ** (cents / 1200)))
  const scatter = 1.4826 * median(frames, (f) => Math.abs(f.cents - cents))!
  const noise = median(frames, (f) => f.sigmaCents)!
  // The median of normal errors is known a quarter less well than their mean.
  const sigmaCents = 1.2533 * Math.hypot(Math.max(scatter, noise) / Math.sqrt(apart), LEAST_SIGMA_CENTS)
  return { cents, sigmaCents, fromS, toS }
}

function wobbleOf(frames: readonly VoicedFrame[], vibratoHz: number | undefined): number {
  if (frames.length < 4) return 0
  const meanS = frames.reduce((sum, f) => sum + f.atS, 0) / frames.length
  const columns = (atS: number) => {
    const turn = 2 * Math.PI * (vibratoHz ?? 0) * atS
    return vibratoHz === undefined ? [1, atS - meanS] : [1, atS - meanS, Math.cos(turn), Math.sin(turn)]
  }
  return residualDeviation(frames, columns)
}

/** What a least-squares fit of these columns leaves, as a standard deviation. */
function residualDeviation(frames: readonly VoicedFrame[], columns: (atS: number) => number[]): number {
  // Gram and Schmidt: each column made square to those before it, and taken out of the pitch.
  let left = frames.map((f) => f.cents)
  const done: number[][] = []
  const count = columns(0).length
  for (let c = 0; c < count; c++) {
    let column = frames.map((f) => columns(f.atS)[c]!)
    for (const before of done) column = without(column, before)
    done.push(column)
    left = without(left, column)
  }
  const free = Math.max(1, frames.length - count)
  return Math.sqrt(left.reduce((sum, v) => sum + v * v, 0) / free)
}

function without(values: readonly number[], direction: readonly number[]): number[] {
  let along = 0
  let size = 0
  direction.forEach((d, i) => {
    along += d * values[i]!
    size += d * d
  })
  return size > 1e-12 ? values.map((v, i) => v - (along / size) * direction[i]!) : [...values]
}

function driftOf(frames: readonly VoicedFrame[]): number {
  const every = Math.ceil(frames.length / DRIFT_POINTS)
  const points = frames.filter((_, i) => i % every === 0).map((f) => ({ x: f.atS, y: f.cents }))
  return points.length < 3 ? 0 : (theilSen(points, 0.8)?.slope ?? 0)
}
