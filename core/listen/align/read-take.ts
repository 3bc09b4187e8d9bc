import type { Stringing } from '../../instrument'
import { A4_HZ } from '../../pitch'
import {
  landingAtCents,
  pitchOfExpected,
  type ExpectedNote,
  type HeardBeside,
  type Landing,
  type LandingSource,
} from '../../take'
import type { HeardNote } from '../notes'
import { align, type Match } from './align'
import { guessNotes } from './guess'

/** One note of the exercise as it was played. */
export interface NoteReading extends ExpectedNote {
  /** Which note of the exercise, from 0. */
  readonly index: number
  readonly heard: HeardNote
  readonly how: Extract<Match, { kind: 'meant' }>['how']
  /** Octaves above the note that was meant; landing and settled are told within its octave. */
  readonly octaves: number
  /** Another note in its stead, and no finger that aims badly. */
  readonly isWrong: boolean
  /** Off the note that was meant, the string's own tuning taken out. */
  readonly landingCents: number
  readonly landingSigmaCents: number
  readonly settledCents: number
  readonly settledSigmaCents: number
}

/** How an open string was heard to be tuned. */
export interface StringTuning {
  readonly stringIndex: number
  /** Off its note; flat is negative. */
  readonly cents: number
  readonly sigmaCents: number
  readonly count: number
}

/** What a take says about its exercise. */
export interface TakeReading {
  /** In the order they were played. */
  readonly readings: readonly NoteReading[]
  readonly extra: readonly HeardNote[]
  /** Between the first and the last note that was played. */
  readonly missing: readonly number[]
  /** First and one past the last note of the exercise that was played. */
  readonly from: number
  readonly to: number
  /** Of the open strings that were played. Their notes' references are moved by it: tune first, and blame no hand. */
  readonly tuning: readonly StringTuning[]
  /** Octaves by which most of the take lies off, where it does. */
  readonly octaves: number
  /** Little of what was heard fits: another exercise, string or instrument. */
  readonly isOther: boolean
}

/** Below this part of well-matched notes a take is of another exercise. */
const LEAST_FIT = 0.6
/** An open string that is off by more is another note. */
const OPEN_STRING_CENTS = 70

/**
 * Lays what was heard against an exercise and says of each of its notes how far off it was. Open strings that were played
 * tell how the strings are tuned; what their other notes are held against is moved along.
 *
 * @param a4Hz that the strings are tuned to.
 */
export function readTake(
  heard: readonly HeardNote[],
  stringing: Stringing,
  notes: readonly ExpectedNote[],
  a4Hz: number = A4_HZ,
): TakeReading {
  const written = writtenCents(stringing, notes, a4Hz)
  const alignment = align(
    heard.map(({ landing }) => landing),
    written,
  )
  const reading = readMatches(heard, notes, written, alignment.matches)
  const well = reading.readings.filter(({ isWrong }) => !isWrong).length
  const { missing, from, to } = alignment
  return {
    ...reading,
    missing,
    from,
    to,
    isOther: heard.length > 0 && well < LEAST_FIT * Math.max(heard.length, 1),
  }
}

/**
 * Reads a take of which nobody has said what it is: every note is held against the likeliest of the notes, strings and
 * fingers that it may have been. Notes that the board does not have are extra.
 *
 * @param a4Hz that the strings are tuned to.
 */
export function readFreeTake(
  heard: readonly HeardNote[],
  stringing: Stringing,
  a4Hz: number = A4_HZ,
): TakeReading {
  const likeliest = guessNotes(heard, stringing, a4Hz).map(([best]) => best)
  const notes: ExpectedNote[] = []
  const matches = likeliest.map((best): Match => {
    if (!best) return { kind: 'extra' }
    const { probability: _, ...expected } = best
    return { kind: 'meant', index: notes.push(expected) - 1, octaves: 0, how: 'next', isWrong: false }
  })
  const written = writtenCents(stringing, notes, a4Hz)
  return {
    ...readMatches(heard, notes, written, matches),
    missing: [],
    from: 0,
    to: notes.length,
    // What lies off the board was played on something else.
    isOther: notes.length < LEAST_FIT * heard.length,
  }
}

/** Pitches as written, cents above 440 Hz. */
function writtenCents(stringing: Stringing, notes: readonly ExpectedNote[], a4Hz: number) {
  const referenceCents = 1200 * Math.log2(a4Hz / 440)
  return notes.map((expected) => ({ cents: pitchOfExpected(stringing, expected) + referenceCents }))
}

function readMatches(
  heard: readonly HeardNote[],
  notes: readonly ExpectedNote[],
  written: readonly { readonly cents: number }[],
  matches: readonly Match[],
): Pick<TakeReading, 'readings' | 'extra' | 'tuning' | 'octaves'> {
  const octaves = mostOctaves(matches)
  const tuning = tuningOf(heard, notes, written, matches, octaves)
  const readings = heard.flatMap((note, i): NoteReading[] => {
    const match = matches[i]!
    if (match.kind === 'extra') return []
    const expected = notes[match.index]!
    const string = tuning.find((t) => t.stringIndex === expected.stringIndex)
    // An open string is told as it was heard: it is what the others are held against.
    const moved = expected.finger === 0 ? 0 : (string?.cents ?? 0)
    const meant = written[match.index]!.cents + 1200 * match.octaves + moved
    const sigma = (own: number) => Math.hypot(own, expected.finger === 0 ? 0 : (string?.sigmaCents ?? 0))
    return [
      {
        ...expected,
        index: match.index,
        heard: note,
        how: match.how,
        octaves: match.octaves,
        isWrong: match.isWrong,
        landingCents: note.landing.cents - meant,
        landingSigmaCents: sigma(note.landing.sigmaCents),
        settledCents: note.settled.cents - meant,
        settledSigmaCents: sigma(note.settled.sigmaCents),
      },
    ]
  })
  return { readings, extra: heard.filter((_, i) => matches[i]!.kind === 'extra'), tuning, octaves }
}

/** Landings of the fingers and open strings that were heard, for what judges takes. */
export function landingsOf(
  stringing: Stringing,
  { readings }: Pick<TakeReading, 'readings'>,
  source: LandingSource,
): Landing[] {
  return readings
    .filter(({ isWrong }) => !isWrong)
    .map((reading) =>
      landingAtCents(stringing, reading, reading.landingCents, {
        sigmaCents: reading.landingSigmaCents,
        atMs: Math.round(1000 * reading.heard.startS),
        source,
        heard: {
          settledCents: reading.settledCents,
          settledSigmaCents: reading.settledSigmaCents,
          lastsMs: Math.round(1000 * (reading.heard.endS - reading.heard.startS)),
          confidence: reading.heard.confidence,
          wobbleCents: reading.heard.wobbleCents,
          brightnessDb: reading.heard.brightnessDb,
          ...vibratoOf(reading),
        },
      }),
    )
}

function vibratoOf({ heard, settledCents }: NoteReading): Partial<HeardBeside> {
  const { vibrato, settled } = heard
  if (!vibrato) return {}
  return {
    vibratoWidthCents: vibrato.widthCents,
    vibratoTopCents: vibrato.topCents - settled.cents + settledCents,
  }
}

function mostOctaves(matches: readonly Match[]): number {
  const counts = new Map<number, number>()
  for (const match of matches)
    if (match.kind === 'meant' && !match.isWrong)
      counts.set(match.octaves, (counts.get(match.octaves) ?? 0) + 1)
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0
}

function tuningOf(
  heard: readonly HeardNote[],
  notes: readonly ExpectedNote[],
  written: readonly { readonly cents: number }[],
  matches: readonly Match[],
  octaves: number,
): StringTuning[] {
  const sums = new Map<number, { weight: number; cents: number; count: number }>()
  matches.forEach((match, i) => {
    if (match.kind === 'extra') return
    const expected = notes[match.index]!
    const { settled } = heard[i]!
    const off = settled.cents - written[match.index]!.cents - 1200 * octaves
    if (expected.finger !== 0 || Math.abs(off) > OPEN_STRING_CENTS) return
    const sum = sums.get(expected.stringIndex) ?? { weight: 0, cents: 0, count: 0 }
    const weight = 1 / settled.sigmaCents ** 2
    sum.weight += weight
    sum.cents += weight * off
    sum.count++
    sums.set(expected.stringIndex, sum)
  })
  return [...sums]
    .sort(([a], [b]) => a - b)
    .map(([stringIndex, { weight, cents, count }]) => ({
      stringIndex,
      cents: cents / weight,
      sigmaCents: 1 / Math.sqrt(weight),
      count,
    }))
}
