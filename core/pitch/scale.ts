import { noteName, parseNote } from './note'

/** Places are named by twelve notes to the octave, so a scale for tapes has twelve. */
export const SCALE_SIZE = 12

/** A scale of one's own, laid on a keynote. */
export interface NamedScale {
  readonly id: string
  readonly name: string
  /** Without its octave, as in `D` or `B♭`. */
  readonly keynote: string
  /** The twelve steps above the keynote, in cents; the last is the octave, or what stands for it. */
  readonly cents: readonly number[]
}

const NAME_LENGTH = 40

/**
 * A scale as a tuning system's id, with all that is needed to hear it: whoever reads a record years later needs no file
 * beside it. Cents to three decimals.
 *
 * @example scaleId('Meantone', 'D', [76.049, 193.157, …, 1200]) // 'scale:D:Meantone:76.049,193.157,…,1200'
 */
export function scaleId(name: string, keynote: string, cents: readonly number[]): string {
  const short = shortened(name.trim())
  return `scale:${keynote}:${short}:${cents.map((c) => String(Number(c.toFixed(3)))).join(',')}`
}

/** The scale an id holds; undefined where it holds none, or none of twelve notes. */
export function readScaleId(id: string): NamedScale | undefined {
  const [kind, keynoteText = '', name = '', list = ''] = id.split(':')
  const keynote = parseNote(`${keynoteText}4`)
  if (kind !== 'scale' || !keynote) return undefined
  const cents = list.split(',').map(Number)
  if (cents.length !== SCALE_SIZE || !cents.every(Number.isFinite) || (cents.at(-1) ?? 0) <= 0)
    return undefined
  return { id, name: decoded(name), keynote: noteName(keynote, { octave: false }), cents }
}

/** Cents above the keynote after `semitones` steps of the scale, down below it as well. */
export function scaleDegreeCents(cents: readonly number[], semitones: number): number {
  const octave = Math.floor(semitones / SCALE_SIZE)
  const degree = semitones - SCALE_SIZE * octave
  return octave * (cents.at(-1) ?? 1200) + (degree === 0 ? 0 : (cents[degree - 1] ?? 0))
}

/** As much of a name as there is room for, sign by sign: one that is cut in two can be neither written nor read. */
function shortened(name: string): string {
  let short = ''
  for (const sign of Array.from(name).slice(0, NAME_LENGTH)) {
    const written = /^\p{Surrogate}$/u.test(sign) ? '' : encodeURIComponent(sign)
    if (short.length + written.length > 3 * NAME_LENGTH) break
    short += written
  }
  return short
}

/** A scale of any number of notes as twelve: each semitone takes the nearest of its notes, in whatever octave they repeat. */
export interface TwelveOf {
  readonly cents: readonly number[]
  /** The furthest that any of the twelve is from its place in equal temperament, cents. */
  readonly furthestCents: number
}

/**
 * The twelve notes of a scale for fingers that are named by semitones: for each, the degree nearest to it. Undefined for a
 * scale without notes, or whose last, at which it repeats, is not above its first.
 */
export function twelveOf(cents: readonly number[]): TwelveOf | undefined {
  const period = cents.at(-1) ?? 0
  if (!(period > 0)) return undefined
  const twelve = Array.from({ length: SCALE_SIZE }, (_, i) => {
    const wanted = 100 * (i + 1)
    // Each degree in the repeat in which it comes nearest.
    const candidates = cents.map((degree) => degree + period * Math.round((wanted - degree) / period))
    return candidates.reduce((a, b) => (Math.abs(b - wanted) < Math.abs(a - wanted) ? b : a))
  })
  return { cents: twelve, furthestCents: Math.max(...twelve.map((c, i) => Math.abs(c - 100 * (i + 1)))) }
}

function decoded(name: string): string {
  try {
    return decodeURIComponent(name)
  } catch {
    return name
  }
}
