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
  const short = encodeURIComponent(name.trim().slice(0, NAME_LENGTH)).slice(0, 3 * NAME_LENGTH)
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

function decoded(name: string): string {
  try {
    return decodeURIComponent(name)
  } catch {
    return name
  }
}
