import { optionsFor } from '../../fingering'
import type { Stringing } from '../../instrument'
import { placementContext } from '../../pattern'
import { A4_HZ, fifthsNumber, midiNumber, note as named, parseNote, type Note } from '../../pitch'
import type { ExpectedNote } from '../../take'
import type { FingerOption } from '../../technique'
import type { HeardNote } from '../notes'

/** A string and finger that a note may have been played by. */
export interface Guess extends ExpectedNote {
  /** That it was this one, of all ways to play it, 0 … 1. */
  readonly probability: number
}

/** The ways in which one heard note may have been played, the likeliest first; none for a note off the board. */
export type NoteGuess = readonly Guess[]

/** What a way of playing weighs, as a logarithm of its unlikelihood; common practice, no source. */
const WEIGHS = {
  /** A hand that stands one letter (violin, viola) or semitone (cello, bass) further up. */
  up: 0.35,
  fourth: 0.3,
  extended: 0.8,
  shift: 1.5,
  shiftPerStep: 0.3,
  crossing: 0.4,
  /** One finger for two notes of a string. */
  slide: 1.2,
  skippedString: 1.2,
  /** A step along the line of fifths from D. */
  spelling: 0.2,
} as const

const NEAREST = named('D4')

interface Way extends FingerOption {
  readonly note: Note
}

/**
 * The string and finger of each heard note where no exercise says it, with the doubt that is left: a hidden chain of ways to
 * play, each weighed by how high the hand stands and how far it and the bow move; probabilities forwards and backwards.
 * Source: L. R. Rabiner, A tutorial on hidden Markov models, Proc. IEEE 77 (1989) 257.
 */
export function guessNotes(
  heard: readonly HeardNote[],
  stringing: Stringing,
  a4Hz: number = A4_HZ,
): NoteGuess[] {
  const context = placementContext(stringing.family, stringing.tuning)
  const waysOf = heard.map(({ settled }) => {
    const semitones = Math.round((settled.cents - 1200 * Math.log2(a4Hz / 440)) / 100)
    return spellings(69 + semitones).flatMap((note) => {
      const inReach = optionsFor(context, note)
      return inReach.map((option): Way => ({ ...option, note }))
    })
  })
  // A note off the board breaks the chain: what follows starts anew.
  return chains(waysOf).flatMap((chain) => chanceOf(chain))
}

/** `C♯4` and `D♭4` for a black key, one name for a white one. */
function spellings(midi: number): Note[] {
  const octave = Math.floor(midi / 12) - 1
  return ['C', 'C#', 'Db', 'D', 'D#', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'G#', 'Ab', 'A', 'A#', 'Bb', 'B']
    .map((name) => parseNote(`${name}${octave}`)!)
    .filter((note) => midiNumber(note) === midi)
}

function chains(waysOf: readonly Way[][]): Way[][][] {
  const all: Way[][][] = [[]]
  for (const ways of waysOf) {
    if (ways.length > 0) all.at(-1)!.push(ways)
    else all.push([[]], [])
  }
  return all.filter((chain) => chain.length > 0)
}

function chanceOf(chain: readonly Way[][]): NoteGuess[] {
  if (chain.length === 1 && chain[0]!.length === 0) return [[]]
  const forward: number[][] = []
  chain.forEach((ways, i) => {
    const before = forward[i - 1]
    forward.push(
      normal(
        ways.map((way) => {
          const own = Math.exp(-weightOf(way))
          if (!before) return own
          return (
            own * chain[i - 1]!.reduce((sum, from, k) => sum + before[k]! * Math.exp(-between(from, way)), 0)
          )
        }),
      ),
    )
  })
  const backward: number[][] = chain.map((ways) => ways.map(() => 1))
  for (let i = chain.length - 2; i >= 0; i--)
    backward[i] = normal(
      chain[i]!.map((way) =>
        chain[i + 1]!.reduce(
          (sum, to, k) => sum + backward[i + 1]![k]! * Math.exp(-weightOf(to) - between(way, to)),
          0,
        ),
      ),
    )
  return chain.map((ways, i) => ranked(ways, normal(ways.map((_, k) => forward[i]![k]! * backward[i]![k]!))))
}

/** The same string and finger in different hands or spellings is one guess. */
function ranked(ways: readonly Way[], chances: readonly number[]): NoteGuess {
  const guesses = new Map<string, Guess>()
  ways.forEach(({ stringIndex, finger, note, hand }, k) => {
    const key = `${stringIndex} ${finger}`
    const known = guesses.get(key)
    const probability = (known?.probability ?? 0) + chances[k]!
    const positionId = hand?.position?.id ?? null
    guesses.set(key, { ...(known ?? { stringIndex, finger, note, positionId }), probability })
  })
  return [...guesses.values()].sort((a, b) => b.probability - a.probability)
}

function weightOf({ finger, hand, note }: Way): number {
  const up = hand ? Math.max(0, hand.anchor - 1) * WEIGHS.up : 0
  const reach = hand && hand.extension !== 'none' ? WEIGHS.extended : 0
  // Of two spellings the one nearer to the keys of open strings: F♯ before G♭, B♭ before A♯.
  const far = WEIGHS.spelling * Math.abs(fifthsNumber(note) - fifthsNumber(NEAREST))
  return up + reach + far + (finger === 4 ? WEIGHS.fourth : 0)
}

function between(from: Way, to: Way): number {
  const strings = Math.abs(from.stringIndex - to.stringIndex)
  const slides = strings === 0 && from.finger === to.finger && from.semitones !== to.semitones
  const crossing =
    strings === 0 ? (slides ? WEIGHS.slide : 0) : WEIGHS.crossing + (strings - 1) * WEIGHS.skippedString
  if (!from.hand || !to.hand) return crossing
  const steps = Math.abs(from.hand.anchor - to.hand.anchor)
  return crossing + (steps === 0 ? 0 : WEIGHS.shift + steps * WEIGHS.shiftPerStep)
}

function normal(values: readonly number[]): number[] {
  const sum = values.reduce((a, b) => a + b, 0)
  return values.map((v) => (sum > 0 ? v / sum : 1 / values.length))
}
