import { median } from 'd3-array'
import { stretchS } from '../pitch'
import type { HeardPitch } from './heard-note'
import { frictionCents, pitchOf, type NoteFacts, type VoicedFrame } from './voiced-frame'

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
  laterPeriods: 4,
  /** What is moving all the while landed at no one moment: its slope over this time is part of its ±, seconds. */
  aboutS: 0.03,
  /** Power of the moment's own power (1: as its energy) by which it counts. */
  byPower: 1.2,
  /** Moments further than this from the others count for nothing (Tukey's biweight), cents. */
  strayCents: 30,
} as const
/**
 * How the pitch of an attack falls to that of its note: to 1/e in so many periods, and no sooner than this; by how little of the sum of
 * weights it must be seen, and what part of what it takes from a landing is not sure. Of recorded open strings and bowed notes (docs/bench.md, "Recorded strings").
 */
const SCOOP = { periods: 6, leastS: 0.03, ridge: 0.001, unsure: 0.4 } as const
/** A sound beside it of as much power may pull a pitch by about so much. */
const COMPANY_CENTS = 15

/**
 * Where the finger came down: the mean of the moments between the attack and the ear's first chance to mend, weighed as
 * {@link LANDING} says, strays left out. Every weight is smooth in time, level and pitch, so that the same playing heard otherwise (at
 * another rate, softer, in a longer file) lands in the same place. In a vibrato its own swing is fitted beside the mean.
 */
export function landingOf(frames: readonly VoicedFrame[], facts: NoteFacts, vibratoHz?: number): HeardPitch {
  const weights = landingWeights(frames, facts, vibratoHz)
  const used = frames.flatMap((frame, i) => (weights[i]! > 1e-6 ? [{ frame, weight: weights[i]! }] : []))
  if (used.length < 3) return pitchOf(frames.slice(0, 3), facts.hopS)
  const centre = weightedMedian(used)
  const kept = used.map(({ frame, weight }) => {
    const stray = (frame.cents - centre) / LANDING.strayCents
    return { frame, weight: weight * Math.max(0, 1 - stray * stray) ** 2 }
  })
  const { mean, scooped, scatter, slope, size } = weightedMean(kept, facts, vibratoHz)
  const [fromS, toS] = [used[0]!.frame.atS, used.at(-1)!.frame.atS]
  const apart = Math.max(1, (size * facts.hopS) / stretchS(440 * 2 ** (mean / 1200)))
  const noise = median(used, ({ frame }) => frame.sigmaCents)!
  const sigmaCents = Math.hypot(
    Math.max(scatter, noise) / Math.sqrt(apart),
    frictionCents(mean),
    slope * LANDING.aboutS,
    SCOOP.unsure * scooped,
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
 * Weighted mean beside the attack's scoop as it falls and, of this rate, a swing; the slope of what is left, what that leaves as a
 * standard deviation, and how many moments it stands on.
 */
function weightedMean(weighed: readonly Weighed[], { startS, cents }: NoteFacts, vibratoHz?: number) {
  const sum = weighed.reduce((total, { weight }) => total + weight, 0)
  const squares = weighed.reduce((total, { weight }) => total + weight * weight, 0)
  const middleS = weighed.reduce((total, { frame, weight }) => total + weight * frame.atS, 0) / sum
  const fallsS = Math.max(SCOOP.leastS, SCOOP.periods / (440 * 2 ** (cents / 1200)))
  const basis = ({ frame: { atS } }: Weighed) => {
    const turn = 2 * Math.PI * (vibratoHz ?? 0) * atS
    const line = [1, Math.exp(-(atS - startS) / fallsS)]
    return vibratoHz === undefined ? line : [...line, Math.cos(turn), Math.sin(turn)]
  }
  const first = weighed[0]!.frame.cents
  const weights = weighed.map(({ weight }) => weight)
  const ridges = [0, SCOOP.ridge, SWING_RIDGE, SWING_RIDGE]
  const fitted = leastSquares(
    weighed.map(basis),
    weighed.map(({ frame }) => frame.cents - first),
    weights,
    ridges,
  )
  const left = weighed.map((w) => w.frame.cents - first - basis(w).reduce((y, b, i) => y + b * fitted[i]!, 0))
  const line = weighed.map(({ frame }) => [1, (frame.atS - middleS) / SLOPE_UNIT_S])
  const [offset, slope] = leastSquares(line, left, weights, [0, SWING_RIDGE]) as [number, number]
  const unexplained = left.reduce((total, off, k) => {
    const rest = off - offset - line[k]![1]! * slope
    return total + weights[k]! * rest * rest
  }, 0)
  return {
    mean: first + fitted[0]!,
    /** By how much the scoop would have moved it. */
    scooped: weighed.reduce((total, w) => total + w.weight * basis(w)[1]! * fitted[1]!, 0) / sum,
    slope: slope / SLOPE_UNIT_S,
    scatter: Math.sqrt(unexplained / sum),
    size: (sum * sum) / squares,
  }
}

/** Keeps the columns of the fit about as large as each other. */
const SLOPE_UNIT_S = 0.05
/** Part of the sum of weights by which a swing must be seen: less than a turn of it tells nothing of its middle. */
const SWING_RIDGE = 0.02

/** Weighted least squares by the normal equations; each column's part drawn to 0 by its ridge, a part of the sum of weights. */
function leastSquares(
  rows: readonly number[][],
  y: readonly number[],
  weights: readonly number[],
  ridges: readonly number[],
): number[] {
  const n = rows[0]!.length
  const a = Array.from({ length: n }, () => new Array<number>(n + 1).fill(0))
  rows.forEach((row, k) => {
    for (let i = 0; i < n; i++) {
      for (let j = 0; j < n; j++) a[i]![j]! += weights[k]! * row[i]! * row[j]!
      a[i]![n]! += weights[k]! * row[i]! * y[k]!
    }
  })
  const sum = a[0]![0]!
  for (let i = 0; i < n; i++) a[i]![i]! += ridges[i]! * sum
  for (let i = 0; i < n; i++)
    for (let r = 0; r < n; r++) {
      if (r === i) continue
      const by = a[r]![i]! / a[i]![i]!
      for (let j = i; j <= n; j++) a[r]![j]! -= by * a[i]![j]!
    }
  return a.map((row, i) => row[n]! / row[i]!)
}
