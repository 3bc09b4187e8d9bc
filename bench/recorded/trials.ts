// What the ear is asked of recorded strings: each trial makes sound of which something is known, and says how far off the ear was.
import { hearNotes, type HeardNote, type RandomSource } from '../../core'
import { compose, nearest, oneOf, type Composed, type Join } from './compose'
import type { Recording } from './recordings'
import { bendRatio, resample } from './resample'
import { noise, type Surroundings } from './surroundings'

/** Half a second of silence, then so much of a recording from its onset. */
export function alone(recording: Recording, seconds = 1.6, leadS = 0.5): Float64Array {
  const { samples, sampleRateHz, onsetS } = recording
  const lead = Math.round(leadS * sampleRateHz)
  const from = Math.max(0, Math.round((onsetS - 0.02) * sampleRateHz))
  const sound = new Float64Array(lead + Math.round(seconds * sampleRateHz))
  sound.set(samples.subarray(from, from + sound.length - lead), lead)
  return sound
}

/** How many notes are heard in one bow. */
export function notesInOneBow(recording: Recording, seconds = 1.6): number {
  return hearNotes(alone(recording, seconds), recording.sampleRateHz).notes.length
}

/** Two notes on one pitch. */
export function pairOf(recording: Recording, join: Join, lastsS: number): readonly HeardNote[] {
  const { cents } = recording
  const { samples, sampleRateHz } = compose([
    { recording, cents, lastsS, join: 'detached' },
    { recording, cents, lastsS, join },
  ])
  return hearNotes(samples, sampleRateHz).notes
}

/** Two notes of one recording, the second so many cents higher. */
export function stepOf(recording: Recording, cents: number, join: Join, lastsS: number): Composed {
  return compose([
    { recording, cents: recording.cents - cents / 2, lastsS, join: 'detached' },
    { recording, cents: recording.cents + cents / 2, lastsS, join },
  ])
}

/** What was heard of a recording once more, otherwise: how far landing and settled moved beyond what was asked for. */
export interface Repeated {
  readonly how: string
  readonly landingCents: number
  readonly landingSigmaCents: number
  readonly settledCents: number
}

/** A recording heard again: bent, at another rate, softer, in noise, in a longer file. */
export function heardAgain(recording: Recording, source: RandomSource): Repeated[] {
  const rate = recording.sampleRateHz
  const sound = alone(recording)
  const [first] = longest(hearNotes(sound, rate).notes)
  const again = (how: string, samples: Float64Array, cents: number, rateHz = rate): Repeated => {
    const [note] = longest(hearNotes(samples, rateHz).notes)
    if (!first || !note) return { how, landingCents: Infinity, landingSigmaCents: 1, settledCents: Infinity }
    return {
      how,
      landingCents: note.landing.cents - first.landing.cents - cents,
      landingSigmaCents: Math.hypot(note.landing.sigmaCents, first.landing.sigmaCents),
      settledCents: note.settled.cents - first.settled.cents - cents,
    }
  }
  const bent = (cents: number) => again(`bent ${cents}`, resample(sound, bendRatio(cents), rate), cents)
  const longer = new Float64Array(sound.length + Math.round(0.777 * rate))
  longer.set(sound, longer.length - sound.length)
  return [
    bent(-31),
    bent(17),
    again('48 kHz', resample(sound, 1, rate, 48_000), 0, 48_000),
    again('16 kHz', resample(sound, 1, rate, 16_000), 0, 16_000),
    again(
      '12 dB softer',
      sound.map((v) => v / 4),
      0,
    ),
    again('noise 30 dB', noise(30)(sound, rate, source), 0),
    again('longer', longer, 0),
  ]
}

/** The longest notes first: a click before or after is not asked about. */
export function longest(notes: readonly HeardNote[]): readonly HeardNote[] {
  return [...notes].sort((a, b) => b.endS - b.startS - (a.endS - a.startS))
}

/** What became of the notes of a composed take. */
export interface TakeErrors {
  readonly lost: number
  readonly invented: number
  /** Of each note that was found: settled and landing off what another estimator hears of it alone, and their ±. */
  readonly found: readonly {
    readonly settledCents: number
    readonly settledSigmaCents: number
    readonly landingCents: number
    readonly landingSigmaCents: number
    readonly onsetS: number
    readonly name: string
  }[]
}

export function takeErrors(
  { notes: placed, samples, sampleRateHz }: Composed,
  surroundings?: Surroundings,
  source?: RandomSource,
): TakeErrors {
  const sound = surroundings && source ? surroundings(samples, sampleRateHz, source) : samples
  const { notes } = hearNotes(sound, sampleRateHz)
  const used = new Set<number>()
  const found = placed.flatMap((note) => {
    const near = notes
      .map((n, i) => ({ n, i, off: Math.abs(n.startS - note.startS) }))
      .filter(({ i, off, n }) => !used.has(i) && off < 0.15 && Math.abs(n.settled.cents - note.cents) < 50)
      .sort((a, b) => a.off - b.off)[0]
    if (!near) return []
    used.add(near.i)
    const { landing, settled } = near.n
    const alone = note.heardAlone()
    return [
      {
        settledCents: settled.cents - alone.settledCents,
        settledSigmaCents: settled.sigmaCents,
        landingCents: landing.cents - alone.landingCents,
        landingSigmaCents: landing.sigmaCents,
        onsetS: near.n.startS - note.startS,
        name: note.recording.name,
      },
    ]
  })
  return { lost: placed.length - found.length, invented: notes.length - used.size, found }
}

/** A row of notes of one family, the pitches as asked, in one way of bowing. */
export function takeOf(
  all: readonly Recording[],
  cents: readonly number[],
  { join, lastsS }: { readonly join: Join; readonly lastsS: number },
  source: RandomSource,
): Composed {
  return compose(
    cents.map((wanted, i) => {
      const long = all.filter((r) => r.samples.length / r.sampleRateHz > lastsS + 1.2)
      const near = long.filter((r) => Math.abs(r.cents - wanted) < 250)
      return {
        recording: near.length > 0 ? oneOf(source, near) : nearest(long, wanted),
        cents: wanted,
        lastsS,
        // The same note once more: the bow turns.
        join: i === 0 ? 'detached' : cents[i - 1] === wanted ? 'rebowed' : join,
      }
    }),
  )
}
