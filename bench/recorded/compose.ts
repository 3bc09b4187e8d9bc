import type { RandomSource } from '../../core'
import { measureNote } from '../../core/listen/notes/measure-note'
import { mcLeodTrack, type Recording } from './recordings'
import { bendRatio, resample } from './resample'
import { rms } from './surroundings'

/** How a note comes after the one before. */
export type Join =
  /** With its own attack, the one before released and left to ring. */
  | 'detached'
  /** The bow goes on sounding: no attack, no fall of the level. */
  | 'slurred'
  /** The bow turns: its own attack close upon the one before. */
  | 'rebowed'

export interface WantedNote {
  readonly recording: Recording
  /** Where it is to settle, cents above 440 Hz: the recording is resampled for it. */
  readonly cents: number
  readonly lastsS: number
  readonly join: Join
  /** Silence before it, seconds; only where it is detached. */
  readonly restS?: number
}

/** What is known of a note because it was put there. */
export interface PlacedNote extends WantedNote {
  readonly startS: number
  readonly endS: number
  /**
   * Landing and settled pitch by their definition, of another estimator's track (McLeod's) of this note alone, without the others and
   * with its true beginning and end; cents above 440 Hz, NaN where it hears nothing. Recordings drift and swing: what was asked for is
   * only their middle.
   */
  readonly heardAlone: () => { readonly landingCents: number; readonly settledCents: number }
}

export interface Composed {
  readonly samples: Float64Array
  readonly sampleRateHz: number
  readonly notes: readonly PlacedNote[]
}

const LEAD_S = 0.5
const TAIL_S = 0.8
const LEVEL = 0.1
/** How a released string rings on, and how a turned bow leaves it: seconds to 1/e. */
const RELEASE_S = 0.06
const TURN_S = 0.015
const CROSS_S = 0.02
/** Where a recording is steady, after its attack. */
const STEADY_S = 0.35

/** A take made of single recordings, each bent to its pitch and as loud as the others; with its truth. */
export function compose(wanted: readonly WantedNote[], sampleRateHz = 44_100): Composed {
  let atS = LEAD_S
  const timed = wanted.map((note): Timed => {
    const startS = atS + (note.join === 'detached' ? (note.restS ?? 0) : 0)
    atS = startS + note.lastsS
    return { ...note, startS, endS: atS }
  })
  const samples = new Float64Array(Math.round((atS + TAIL_S) * sampleRateHz))
  const notes = timed.map((note, i): PlacedNote => {
    const sound = add(samples, sampleRateHz, note, timed[i + 1])
    return { ...note, heardAlone: () => hearAlone(sound, sampleRateHz, note) }
  })
  return { samples, sampleRateHz, notes }
}

type Timed = Omit<PlacedNote, 'heardAlone'>

function hearAlone(sound: Float64Array, rate: number, { cents, lastsS, join }: Timed) {
  const startS = join === 'slurred' ? CROSS_S / 2 : 0.01
  const hopS = 0.01
  const track = mcLeodTrack(sound, rate, 0.02, startS + lastsS, 69 + cents / 100)
  const frames = track.map(({ atS, cents: heard, clarity }) => {
    const near = sound.subarray(Math.round((atS - 0.01) * rate), Math.round((atS + 0.01) * rate))
    const levelDb = 20 * Math.log10(rms(near) + 1e-9)
    return { atS, cents: heard, sigmaCents: 0, confidence: clarity, levelDb, brightnessDb: 0, stiffness: 0 }
  })
  const note = measureNote(frames, { startS, endS: startS + lastsS, begins: 'freely', hopS, cents })
  return { landingCents: note?.landing.cents ?? NaN, settledCents: note?.settled.cents ?? NaN }
}

/** Adds a note's sound; returns it as it is before it fades. */
function add(samples: Float64Array, rate: number, note: Timed, next: Timed | undefined): Float64Array {
  const { recording, startS, lastsS, join } = note
  const isCarried = join === 'slurred'
  const isCarriedOn = next?.join === 'slurred'
  const wantedS = lastsS + (isCarriedOn ? CROSS_S : 6 * RELEASE_S)
  // Pitch and time go together: so much of the recording is used.
  const speed = bendRatio(note.cents - recording.cents)
  const fromS = Math.max(0, recording.onsetS + (isCarried ? STEADY_S : -0.01))
  const piece = pieceOf(recording, fromS, speed * (wantedS + 0.1))
  const sound = resample(piece, speed, recording.sampleRateHz, rate)
  const level = LEVEL / Math.max(1e-9, loudnessOf(sound, rate))
  const first = Math.round((startS - (isCarried ? CROSS_S / 2 : 0.01)) * rate)
  const fallS = next?.join === 'rebowed' && !isCarriedOn ? TURN_S : RELEASE_S
  for (let n = 0; n < sound.length && first + n < samples.length; n++) {
    const t = n / rate
    const rise = isCarried ? Math.min(1, t / CROSS_S) : Math.min(1, t / 0.005)
    const left = t - lastsS - (isCarried ? CROSS_S / 2 : 0.01)
    // A slur hands over within its crossing; else the bow leaves the string a little before the next note is there.
    const fall = isCarriedOn
      ? Math.max(0, Math.min(1, 0.5 - left / CROSS_S))
      : left + 0.03 < 0
        ? 1
        : Math.exp(-(left + 0.03) / fallS)
    if (first + n >= 0) samples[first + n]! += level * rise * fall * sound[n]!
  }
  return sound
}

/** So many seconds of a recording. */
function pieceOf({ samples, sampleRateHz }: Recording, fromS: number, seconds: number): Float64Array {
  const from = Math.round(fromS * sampleRateHz)
  const count = Math.round(seconds * sampleRateHz)
  if (from + count > samples.length)
    throw new RangeError(`${seconds.toFixed(2)} s from ${fromS.toFixed(2)} s are more than the recording has`)
  return samples.slice(from, from + count)
}

/** Root mean square of its loudest quarter of a second. */
function loudnessOf(sound: Float64Array, rate: number): number {
  const width = Math.round(0.25 * rate)
  let [sum, most] = [0, 0]
  sound.forEach((v, i) => {
    sum += v * v - (i >= width ? sound[i - width]! ** 2 : 0)
    if (sum > most) most = sum
  })
  return Math.sqrt(most / Math.min(width, sound.length))
}

/** One of these, by the source. */
export function oneOf<T>(source: RandomSource, values: readonly T[]): T {
  return values[Math.floor(source() * values.length)]!
}

/** The recording that has to be bent least. */
export function nearest(all: readonly Recording[], cents: number): Recording {
  return all.reduce((a, b) => (Math.abs(b.cents - cents) < Math.abs(a.cents - cents) ? b : a))
}
