import { median, sum } from 'd3-array'
import type { Stringing } from '../../instrument'
import { A4_HZ } from '../../pitch'
import {
  landingAtCents,
  pitchOfExpected,
  READ_TO_CENTS,
  type ExpectedNote,
  type HeardBeside,
  type Landing,
  type LandingSource,
} from '../../take'
import type { HeardNote } from '../notes'
import { align, ALIGNMENT_COSTS, type Match } from './align'
import { doubtOf, isCompany, isFragment, type Doubt } from './doubt'
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
  /** Why it is not judged; undefined of what is. */
  readonly doubt: Doubt | undefined
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
  /** Octaves by which the take lies off an exercise that it fits otherwise. */
  readonly octaves: number
  /** Little of what was heard fits, or it fits an octave away: another exercise, string or instrument. */
  readonly isOther: boolean
  /** Short or unsteady pitches that are no notes of this player make up a good part of it: somebody talks or plays beside. */
  readonly hasCompany: boolean
}

/** Below this part of well-matched notes a take is of another exercise; one that is far off counts half. */
const LEAST_FIT = 0.6
const FAR_COUNTS = 0.5
const FAR_CENTS = ALIGNMENT_COSTS.wrongCents
/** An open string tells its tuning once it has sounded so long. */
export const OPEN_STRING_LASTS_S = 0.25
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
  const sure = reading.readings.filter(({ doubt }) => doubt === undefined || doubt === 'octave')
  const near = sure.filter(({ landingCents }) => Math.abs(landingCents) <= FAR_CENTS).length
  const far = sure.filter((r) => !r.isWrong).length - near
  const told = sure.length + reading.extra.filter((note) => !isFragment(note)).length
  const { missing, from, to } = alignment
  const fits = sure.length > 0 && near + FAR_COUNTS * far >= LEAST_FIT * told
  return {
    ...reading,
    missing,
    from,
    to,
    octaves: fits ? reading.octaves : 0,
    // No finger is judged an octave away: that is another string, or another instrument.
    isOther: heard.length > 0 && (!fits || reading.octaves !== 0),
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
): Pick<TakeReading, 'readings' | 'extra' | 'tuning' | 'octaves' | 'hasCompany'> {
  const octaves = mostOctaves(matches)
  const tuning = tuningOf(heard, notes, written, matches, octaves)
  const attackCents = attackOf(heard, notes, matches)
  const loudDb = median(matches.flatMap((m, i) => (m.kind === 'meant' ? [heard[i]!.levelDb] : []))) ?? 0
  const readings = heard.flatMap((note, i): NoteReading[] => {
    const match = matches[i]!
    if (match.kind === 'extra') return []
    const expected = notes[match.index]!
    const string = tuning.find((t) => t.stringIndex === expected.stringIndex)
    // An open string is told as it was heard: it is what the others are held against.
    const moved = expected.finger === 0 ? 0 : (string?.cents ?? 0)
    const meant = written[match.index]!.cents + 1200 * match.octaves + moved
    const sigma = (own: number, attack = 0) =>
      expected.finger === 0 ? own : Math.hypot(own, string?.sigmaCents ?? 0, attack)
    const landingCents = note.landing.cents - meant
    return [
      {
        ...expected,
        index: match.index,
        heard: note,
        how: match.how,
        octaves: match.octaves,
        isWrong: Math.abs(landingCents) > READ_TO_CENTS,
        doubt: doubtOf(note, match, { octaves, loudDb }),
        landingCents,
        landingSigmaCents: sigma(note.landing.sigmaCents, attackCents),
        settledCents: note.settled.cents - meant,
        settledSigmaCents: sigma(note.settled.sigmaCents),
      },
    ]
  })
  const extra = heard.filter((_, i) => matches[i]!.kind === 'extra')
  const strange = readings.filter(({ doubt }) => doubt === 'octave' || doubt === 'faint')
  const fragments = [...extra.filter(isFragment), ...strange.map((r) => r.heard)]
  return { readings, extra, tuning, octaves, hasCompany: isCompany(fragments, heard) }
}

/**
 * How far a stroke's attack moves a pitch: an open string has no finger, so what its landing differs from its settled pitch is the
 * attack's (root mean square of this take's; 0 of none). A stopped note is known no better.
 */
function attackOf(
  heard: readonly HeardNote[],
  notes: readonly ExpectedNote[],
  matches: readonly Match[],
): number {
  const moved = matches.flatMap((match, i) => {
    if (match.kind === 'extra' || notes[match.index]!.finger !== 0) return []
    const { glideCents } = heard[i]!
    return Math.abs(glideCents) < OPEN_STRING_CENTS ? [glideCents ** 2] : []
  })
  return moved.length > 0 ? Math.sqrt(sum(moved) / moved.length) : 0
}

/** Landings of the fingers and open strings that were heard, for what judges takes. */
export function landingsOf(
  stringing: Stringing,
  { readings }: Pick<TakeReading, 'readings'>,
  source: LandingSource,
): Landing[] {
  return readings
    .filter(({ isWrong, doubt }) => !isWrong && doubt === undefined)
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
    const { settled, startS, endS } = heard[i]!
    // A short one has not settled.
    if (endS - startS < OPEN_STRING_LASTS_S) return
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
