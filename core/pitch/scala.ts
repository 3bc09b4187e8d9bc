import { ratioToCents } from './cents'

/** One line of a scale: cents (written with a point) or a ratio of whole numbers. */
export type ScalaPitch =
  | { readonly kind: 'cents'; readonly cents: number }
  | { readonly kind: 'ratio'; readonly numerator: number; readonly denominator: number }

export interface ScalaScale {
  readonly description: string
  /** Above the first note, which is not written: 1/1. The last is the interval at which the scale repeats. */
  readonly pitches: readonly ScalaPitch[]
}

export type ScalaFault =
  | { readonly code: 'scala_too_large'; readonly limit: number }
  | { readonly code: 'scala_no_description'; readonly line: number }
  | { readonly code: 'scala_no_count'; readonly line: number }
  | { readonly code: 'scala_bad_count'; readonly line: number; readonly text: string }
  | { readonly code: 'scala_bad_pitch'; readonly line: number; readonly text: string }
  | { readonly code: 'scala_negative_ratio'; readonly line: number; readonly text: string }
  | { readonly code: 'scala_out_of_reach'; readonly line: number; readonly text: string }
  | { readonly code: 'scala_too_few'; readonly line: number; readonly said: number; readonly found: number }
  | { readonly code: 'scala_too_many'; readonly line: number; readonly said: number }

/** What the format allows and probably nobody meant. */
export interface ScalaQuestion {
  /** Blanks end a pitch, so `5 / 4` is 5; a whole number is a ratio, so `702` is 702:1, and cents want a point. */
  readonly code: 'scala_spaced_ratio' | 'scala_cents_without_point'
  readonly line: number
  readonly text: string
}

export type ParsedScala =
  | { readonly ok: true; readonly scale: ScalaScale; readonly questions: readonly ScalaQuestion[] }
  | { readonly ok: false; readonly fault: ScalaFault }

/** Characters of the largest file read: the largest published scales are a tenth of it. */
export const SCALA_SIZE_LIMIT = 200_000

/** Names in faults are cut: a fault quotes a line, not a file. */
const QUOTED_LENGTH = 40
const END_OF_FILE = String.fromCharCode(26)
/** Whole numbers beyond this are no longer told apart; the format asks for 2³¹ − 1. */
const LARGEST_NUMBER = Number.MAX_SAFE_INTEGER
/** A pitch further off is none that anybody hears: a hundred octaves. */
const FURTHEST_CENTS = 120_000
/** Whole numbers that look like cents: no scale goes a hundred times up in one step. */
const CENTS_FROM = 100
const CENTS_TO = 1200

/**
 * Reads a Scala scale file (`.scl`). Lines that begin with `!` are comments; the first other line is the description and
 * may be empty, the second the number of notes, then one pitch a line: with a point it is cents, without it a ratio or a
 * whole number. What follows a pitch on its line is ignored. Faults carry the line number, counted from 1.
 * Source: the Scala scale file format description (Huygens-Fokker Foundation).
 */
export function parseScala(text: string): ParsedScala {
  if (text.length > SCALA_SIZE_LIMIT)
    return { ok: false, fault: { code: 'scala_too_large', limit: SCALA_SIZE_LIMIT } }
  const all = withoutEndOfFile(text.replace(/^\uFEFF/, '')).split(/\r\n|\r|\n/)
  const lines = all
    .map((line, index) => ({ text: line, line: index + 1 }))
    .filter((line) => !line.text.startsWith('!'))
  // A file ends with a line end; what follows it is no line.
  if (lines.at(-1)?.text === '') lines.pop()
  const [description, count, ...rest] = lines
  const last = all.length
  if (!description) return { ok: false, fault: { code: 'scala_no_description', line: last } }
  if (!count) return { ok: false, fault: { code: 'scala_no_count', line: last } }
  const said = /^\s*(\d+)(?:\s|$)/.exec(count.text)?.[1]
  if (said === undefined)
    return { ok: false, fault: { code: 'scala_bad_count', line: count.line, text: quoted(count.text) } }
  const wanted = Number(said)

  const pitches: ScalaPitch[] = []
  const questions: ScalaQuestion[] = []
  for (const line of rest) {
    if (pitches.length === wanted) {
      if (line.text.trim() === '') continue
      return { ok: false, fault: { code: 'scala_too_many', line: line.line, said: wanted } }
    }
    const pitch = parsePitch(line.text)
    if (typeof pitch === 'string')
      return { ok: false, fault: { code: pitch, line: line.line, text: quoted(line.text) } }
    pitches.push(pitch)
    const code = questionOf(line.text, pitch)
    if (code) questions.push({ code, line: line.line, text: quoted(line.text) })
  }
  if (pitches.length < wanted)
    return { ok: false, fault: { code: 'scala_too_few', line: last, said: wanted, found: pitches.length } }
  return { ok: true, scale: { description: description.text.trim(), pitches }, questions }
}

function questionOf(text: string, pitch: ScalaPitch): ScalaQuestion['code'] | undefined {
  if (pitch.kind !== 'ratio' || pitch.denominator !== 1) return undefined
  if (/^\s*\d+(\s+\/|\/\s)/.test(text)) return 'scala_spaced_ratio'
  const looksLikeCents = pitch.numerator >= CENTS_FROM && pitch.numerator <= CENTS_TO
  return looksLikeCents ? 'scala_cents_without_point' : undefined
}

type PitchFault = 'scala_bad_pitch' | 'scala_negative_ratio' | 'scala_out_of_reach'

function parsePitch(text: string): ScalaPitch | PitchFault {
  const cents = /^\s*(-?\d*\.\d*)(?:\s|$)/.exec(text)?.[1]
  if (cents !== undefined && /\d/.test(cents))
    return Math.abs(Number(cents)) <= FURTHEST_CENTS
      ? { kind: 'cents', cents: Number(cents) }
      : 'scala_out_of_reach'
  const ratio = /^\s*(-?\d+)(?:\/(-?\d+))?(?:\s|\/\s|$)/.exec(text)
  if (!ratio) return 'scala_bad_pitch'
  const numerator = Number(ratio[1])
  const denominator = Number(ratio[2] ?? 1)
  if (numerator === 0 || denominator === 0) return 'scala_bad_pitch'
  if (numerator < 0 || denominator < 0) return 'scala_negative_ratio'
  if (numerator > LARGEST_NUMBER || denominator > LARGEST_NUMBER) return 'scala_out_of_reach'
  return { kind: 'ratio', numerator, denominator }
}

/** Writes a scale as {@link parseScala} reads it; `fileName` stands in the first comment, as is the custom. */
export function writeScala(scale: ScalaScale, fileName: string): string {
  return [
    `! ${oneLine(fileName)}`,
    '!',
    oneLine(scale.description).replace(/^!/, ' !'),
    ` ${scale.pitches.length}`,
    '!',
    ...scale.pitches.map((pitch) =>
      pitch.kind === 'cents'
        ? ` ${pitch.cents.toFixed(5)}`
        : pitch.denominator === 1
          ? ` ${pitch.numerator}`
          : ` ${pitch.numerator}/${pitch.denominator}`,
    ),
    '',
  ].join('\n')
}

/** Every note of a scale in cents above its first. */
export function scalaCents(scale: ScalaScale): number[] {
  return scale.pitches.map((pitch) =>
    pitch.kind === 'cents' ? pitch.cents : ratioToCents(pitch.numerator / pitch.denominator),
  )
}

/** Old files end with the end-of-file sign of their system, control-Z. */
function withoutEndOfFile(text: string): string {
  const end = text.trimEnd()
  return end.endsWith(END_OF_FILE) ? end.slice(0, -1) : text
}

function oneLine(text: string): string {
  return text.replace(/[\r\n]+/g, ' ')
}

function quoted(text: string): string {
  const signs = Array.from(text.trim())
  return signs.length > QUOTED_LENGTH ? `${signs.slice(0, QUOTED_LENGTH).join('')}…` : signs.join('')
}
