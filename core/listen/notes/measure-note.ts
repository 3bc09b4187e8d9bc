import { median } from 'd3-array'
import { theilSen } from '../../frame'
import { A4_HZ } from '../../pitch'
import { stretchS } from '../pitch'
import type { HeardNote, HeardPitch } from './heard-note'
import { landingOf } from './landing'
import { pitchOf, type NoteFacts, type VoicedFrame } from './voiced-frame'
import { findVibrato } from './vibrato'

/** The part of a note, from its end, that says where it was left. */
const SETTLED_PART = 0.4
const SETTLED_AT_MOST_S = 0.4
/** The string needs so long to speak after its attack, and dies away before its end. */
const SPEAKS_S = 0.02
/** Frames of a held note from which its slope is read; more are thinned out to so many. */
const DRIFT_POINTS = 40
/** A slope is that of the middle line whatever its interval: any level of it serves. Fewer points than these have none. */
const DRIFT_INTERVAL = 0.8
const LEAST_DRIFT_POINTS = 3
/** A frame further than this from the middle of its note is of another one, or of none, cents. */
const OF_THE_NOTE_CENTS = 120
/** Where fewer frames lie clear of a note's edges, those next to its middle are taken instead. */
const LEAST_FRAMES = 3
/** A level, a slope and a deviation need at least so many. */
const LEAST_WOBBLE_FRAMES = 4
/** What is left of a column that the ones before it explain: as good as nothing. */
const NOTHING = 1e-12
const CENTS_PER_OCTAVE = 1200
/** An octave up a note of the same make is this much brighter, dB: twice the frequency. */
const DB_PER_OCTAVE = 20 * Math.log10(2)

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

/** {@link DB_PER_OCTAVE} for each octave that the note lies higher are of its pitch, and no brightness. */
function brightnessOf(frames: readonly VoicedFrame[]): number {
  return median(frames, (f) => f.brightnessDb - (DB_PER_OCTAVE * f.cents) / CENTS_PER_OCTAVE)!
}

/** The frames whose stretch of sound lies within the note, as far as there are any; else those next to its middle. */
function clearOfEdges(frames: readonly VoicedFrame[], { startS, endS, hopS }: NoteFacts): VoicedFrame[] {
  const typical = median(frames, (f) => f.cents)
  if (typical === undefined) return []
  const half = stretchS(A4_HZ * 2 ** (typical / CENTS_PER_OCTAVE)) / 2
  // A plucked string is stiff all along: a frame that took its partials for whole multiples is off by what they are stretched.
  const stiff = frames.filter((f) => f.stiffness > 0)
  const alike = stiff.length > frames.length / 2 ? stiff : frames
  const near = alike.filter((f) => Math.abs(f.cents - typical) < OF_THE_NOTE_CENTS)
  const clear = near.filter((f) => f.atS - half >= startS + SPEAKS_S - hopS && f.atS + half <= endS)
  if (clear.length >= LEAST_FRAMES) return clear
  const middle = (startS + endS) / 2
  return [...near]
    .sort((a, b) => Math.abs(a.atS - middle) - Math.abs(b.atS - middle))
    .slice(0, LEAST_FRAMES)
    .sort((a, b) => a.atS - b.atS)
}

function settledOf(frames: readonly VoicedFrame[], lastsS: number, hopS: number): HeardPitch {
  const endS = frames.at(-1)!.atS
  const from = endS - Math.min(SETTLED_AT_MOST_S, lastsS * SETTLED_PART)
  const last = frames.filter((f) => f.atS >= from)
  return pitchOf(last.length > 0 ? last : frames.slice(-1), hopS)
}

function wobbleOf(frames: readonly VoicedFrame[], vibratoHz: number | undefined): number {
  if (frames.length < LEAST_WOBBLE_FRAMES) return 0
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
  return size > NOTHING ? values.map((v, i) => v - (along / size) * direction[i]!) : [...values]
}

function driftOf(frames: readonly VoicedFrame[]): number {
  const every = Math.ceil(frames.length / DRIFT_POINTS)
  const points = frames.filter((_, i) => i % every === 0).map((f) => ({ x: f.atS, y: f.cents }))
  return points.length < LEAST_DRIFT_POINTS ? 0 : (theilSen(points, DRIFT_INTERVAL)?.slope ?? 0)
}
