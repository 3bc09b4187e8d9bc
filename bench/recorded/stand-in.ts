// The stand-in for a student, note by note beside the recordings: the same notes, as long, with the vibrato that was played there.
import { deviation } from 'd3-array'
import {
  familyOf,
  fifths,
  hearNotes,
  note as named,
  PLAIN_MANNER,
  record,
  seededSource,
  stringingOf,
  type PlayedNote,
  type RandomSource,
} from '../../core'
import { mcLeodTrack, median, onsetOf, steadyCents, type Recording } from './recordings'
import { alone, heardAgain, longest } from './trials'

const RATE = 44_100
/** Before the note, seconds; a performance begins with as much. */
const LEAD_S = 0.35
const LASTS_S = 2.4

/** The note of a recording as the stand-in plays it. */
export function standInFor(recording: Recording, source: RandomSource): Recording {
  const family = familyOf(recording.family)
  const stringing = stringingOf({ family, sizeId: family.sizes[0]!.id, system: fifths, lengthsMm: [600] })
  const writtenCents = 100 * (recording.midi - 69)
  const note: PlayedNote = {
    stringIndex: 0,
    // No open string swings.
    finger: 1,
    note: named('A4'),
    positionId: 'first',
    index: 0,
    startS: LEAD_S,
    endS: LEAD_S + LASTS_S,
    writtenCents,
    landingCents: 0,
    settledCents: 0,
    isSlurred: false,
  }
  const vibrato = longest(hearNotes(alone(recording), recording.sampleRateHz).notes)[0]?.vibrato
  const manner = {
    ...PLAIN_MANNER,
    vibrato: vibrato
      ? { rateHz: vibrato.rateHz, widthCents: vibrato.widthCents, aboveCents: vibrato.widthCents / 2 }
      : null,
  }
  const sound = record(source, { stringing, manner, notes: [note] }, { sampleRateHz: RATE, noiseDb: 60 })
  const samples = Float64Array.from(sound)
  const onsetS = onsetOf(samples, RATE)
  const cents = steadyCents(samples, RATE, onsetS, recording.midi)
  return { ...recording, name: `${recording.name} (stand-in)`, samples, sampleRateHz: RATE, onsetS, cents }
}

/** One measure of what is uneven in recorded notes, nine in ten of them below it. */
export interface Unevenness {
  readonly what: string
  readonly unit: string
  readonly value: number
}

/** Moments after the onset at which an attack's pitch is asked for, seconds. */
const ATTACK_S = [0.05, 0.1, 0.2, 0.3]

/** How uneven bowed notes are: their attacks, their unrest, their noise, the swing of their level; and how far the ear errs on them. */
export function unevennessOf(notes: readonly Recording[]): Unevenness[] {
  const tracks = notes.map((r) =>
    mcLeodTrack(r.samples, r.sampleRateHz, r.onsetS, r.onsetS + 1.7, r.midi).map(
      ({ atS, cents, clarity }) => ({
        atS: atS - r.onsetS,
        off: cents - r.cents,
        clarity,
      }),
    ),
  )
  const attacks = ATTACK_S.map((at) => ({
    what: `pitch ${at} s after the onset, off its middle`,
    unit: 'cents',
    value: nineInTen(tracks.flatMap((t) => t.find(({ atS }) => Math.abs(atS - at) < 0.006)?.off ?? [])),
  }))
  const bends = tracks.map((t) =>
    median(t.slice(2).map(({ off }, i) => Math.abs(off - 2 * t[i + 1]!.off + t[i]!.off))),
  )
  const noise = tracks.map((t) => 10 * Math.log10(1 - median(t.map(({ clarity }) => clarity)) + 1e-6))
  const again = notes.flatMap((r) => heardAgain(r, seededSource(1)))
  return [
    ...attacks,
    { what: 'bend of the pitch from moment to moment', unit: 'cents', value: nineInTen(bends) },
    { what: 'what has no pitch', unit: 'dB', value: median(noise) },
    { what: 'swing of the level (deviation)', unit: 'dB', value: nineInTen(notes.map(levelSwingOf)) },
    {
      what: 'the ear: landing heard again',
      unit: 'cents',
      value: nineInTen(again.map(({ landingCents }) => landingCents)),
    },
    {
      what: 'the ear: settled heard again',
      unit: 'cents',
      value: nineInTen(again.map(({ settledCents }) => settledCents)),
    },
  ]
}

function nineInTen(values: readonly number[]): number {
  return values.map(Math.abs).sort((a, b) => a - b)[Math.floor(0.9 * values.length)] ?? NaN
}

/** Standard deviation of the level from 0.4 to 1.7 s after the onset, in steps of 20 ms. */
function levelSwingOf({ samples, sampleRateHz, onsetS }: Recording): number {
  const levels: number[] = []
  for (let at = 0.4; at < 1.7; at += 0.02) {
    const from = Math.round((onsetS + at) * sampleRateHz)
    const part = samples.subarray(from, from + Math.round(0.04 * sampleRateHz))
    levels.push(10 * Math.log10(part.reduce((sum, v) => sum + v * v, 1e-12) / part.length))
  }
  return deviation(levels) ?? NaN
}
