// What the ear is asked of recorded strings: each trial makes sound of which something is known, and says how far off the ear was.
import {
  familyOf,
  fifths,
  hearNotes,
  judgeTake,
  landingsOf,
  pitchOfExpected,
  playedNotes,
  readTake,
  shapeExercise,
  stringingOf,
  type FamilyId,
  type HeardNote,
  type RandomSource,
} from '../../core'
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

/** What is played of each family, cents above 440 Hz: scales where hands are taught, the last note but some once more. */
export const SCALES: Record<FamilyId, readonly number[]> = {
  violin: [-1400, -1200, -1000, -900, -700, -500, -300, -200, 0, 200, 400, 500, 700, 700, 500, 400],
  viola: [-2100, -1900, -1700, -1600, -1400, -1200, -1000, -900, -700, -700, -900, -1000],
  cello: [-3300, -3100, -2900, -2800, -2600, -2400, -2200, -2100, -1900, -1700, -1500, -1400, -1200, -1200],
  bass: [-3900, -3800, -3500, -3300, -3100, -2900, -2700, -2500, -2400, -2400, -2500, -2700],
}

const LENGTHS: Record<FamilyId, number> = { violin: 328, viola: 371, cello: 690, bass: 1050 }
const NEAR_CENTS = 20

/** A hand that was played wrongly, and whether anybody is told. */
export interface JudgedHand {
  readonly what: string
  /** The finger is read where it was, or said to be missing or another note, or it is said that something else was played. */
  readonly isTold: boolean
}

/** A family's first hand shape on its second string, to be played from recordings, heard, read and judged. */
export function handOf(family: FamilyId, pool: readonly Recording[]) {
  const known = familyOf(family)
  const stringing = stringingOf({
    family: known,
    sizeId: known.sizes[0]!.id,
    system: fifths,
    lengthsMm: [LENGTHS[family]],
  })
  const long = pool.filter((r) => r.samples.length / r.sampleRateHz > 2)
  const exercise = shapeExercise(stringing.tuning, 1, known.shapes[0]!)
  const line = playedNotes(exercise)
  const pitches = line.map((note) => pitchOfExpected(stringing, note))
  const play = (cents: readonly number[]) =>
    compose(
      cents.map((wanted) => ({
        recording: nearest(long, wanted),
        cents: wanted,
        lastsS: 0.45,
        join: 'detached',
      })),
    )
  const judge = (samples: Float64Array, sampleRateHz: number) => {
    const reading = readTake(hearNotes(samples, sampleRateHz).notes, stringing, line)
    const landings = reading.isOther ? [] : landingsOf(stringing, reading, 'recording')
    return { reading, verdict: judgeTake({ stringing, exercise, landings, toleranceCents: 15 }) }
  }
  return { stringing, shape: known.shapes[0]!, line, pitches, play, judge }
}

/** One finger far off, another string, another piece: each played from recordings on a family's second string. */
export function judgedHands(
  family: FamilyId,
  pool: readonly Recording[],
  offs = [40, 100, 150, -70, -100, -130],
): JudgedHand[] {
  const { stringing, shape, line, pitches, play, judge: judged } = handOf(family, pool)
  const judge = (cents: readonly number[]) => {
    const { samples, sampleRateHz } = play(cents)
    return judged(samples, sampleRateHz)
  }
  const fingers = [...new Set(line.map(({ finger }) => finger))].filter((finger) => finger !== 0)
  const one = fingers.flatMap((finger) =>
    offs.map((off): JudgedHand => {
      const round = line.map((note, i) => pitches[i]! + (note.finger === finger ? off : 0))
      const { reading, verdict } = judge([...round, ...round.slice(1)])
      const own = reading.readings.filter((r) => r.finger === finger && !r.doubt)
      const isRead = own.some((r) => !r.isWrong && Math.abs(r.landingCents - off) < NEAR_CENTS)
      const isSaid =
        reading.isOther ||
        own.some((r) => r.isWrong) ||
        reading.missing.some((i) => line[i]!.finger === finger)
      return {
        what: `${family}, ${finger} ${off} cents off`,
        isTold: (isRead || isSaid) && verdict.outcome !== 'in_tune',
      }
    }),
  )
  const otherString = playedNotes(shapeExercise(stringing.tuning, 0, shape)).map((n) =>
    pitchOfExpected(stringing, n),
  )
  const tunes = [
    [0, 2, -2, -7],
    [4, 2, 0, 2, 4, 4, 4],
    [7, 7, 9, 9, 7, 4],
    [-3, 0, 5, 2, -1],
  ].map((tune) => tune.map((semitones) => pitches[0]! + 100 * semitones))
  const others = [otherString, ...tunes].map((cents, i): JudgedHand => {
    const { reading, verdict } = judge(cents)
    const isTold = reading.isOther || !['in_tune', 'explained'].includes(verdict.outcome)
    return { what: `${family}, ${i === 0 ? 'another string' : `tune ${i}`}`, isTold }
  })
  return [...one, ...others]
}

/** What is heard of a recording that is slid, from 0.7 s after its onset on, by so many cents in so long; cents off where it was. */
export function slideOf(recording: Recording, cents: number, lastsS: number): readonly HeardNote[] {
  const beginsS = 1.2
  const speed = (atS: number) => {
    const through = Math.max(0, Math.min(1, (atS - beginsS) / lastsS))
    return bendRatio(cents * through * through * (3 - 2 * through))
  }
  return hearNotes(resample(alone(recording, 2.2), speed, recording.sampleRateHz), recording.sampleRateHz)
    .notes
}
