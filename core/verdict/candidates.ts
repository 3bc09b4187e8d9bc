import { group } from 'd3-array'
import type { Evidence, EvidenceNote } from './evidence'
import { KINDS, type Kind } from './kinds'

/** A kind in one direction, with what it does to each note, the note that it moves most by 1 or −1. */
export interface Candidate {
  readonly kind: Kind
  /** The same for every way of the same fault. Faults of two directions are two: too high is another than too low. */
  readonly key: string
  /** 1: sharp where it shows most, or wide. */
  readonly sign: 1 | -1
  /** Which of the rows it is. */
  readonly row: number
  /** Cents off, a note, for a size of one cent. */
  readonly effects: Float64Array
  /** Size of the kind for a size of one cent. */
  readonly perCent: number
}

/** What a kind does to each note, the note that it moves most by one cent; it knows no direction. */
export interface Row {
  readonly kind: Kind
  readonly effects: Float64Array
  readonly perCent: number
}

/** Every kind that moves any of these notes. */
export function rowsOf(evidence: Evidence): Row[] {
  const { notes } = evidence
  const places = [...group(notes, ({ target }) => target).values()].map((own) => own[0]!)
  const placeOf = new Map(places.map(({ target }, i) => [target, i]))
  const placesOf = Int32Array.from(notes, ({ target }) => placeOf.get(target)!)
  return KINDS.flatMap((kindsOf) => kindsOf(evidence)).flatMap((kind): Row[] => {
    const shown = (note: EvidenceNote) => kind.moves(note) * note.centsPerMm
    const byPlace = Float64Array.from(places, shown)
    const effects = new Float64Array(notes.length)
    for (let i = 0; i < notes.length; i++)
      effects[i] = kind.isInTime ? shown(notes[i]!) : byPlace[placesOf[i]!]!
    let most = 0
    for (let i = 0; i < effects.length; i++)
      if (notes[i]!.weight > 0) most = Math.max(most, Math.abs(effects[i]!))
    if (!(most > 0)) return []
    for (let i = 0; i < effects.length; i++) effects[i]! /= most
    return [{ kind, effects, perCent: 1 / most }]
  })
}

/** Both directions of every row, each once: where two would move the notes alike, the first stands for both. */
export function candidatesOf(rows: readonly Row[]): Candidate[] {
  const found: Candidate[] = []
  for (const [row, { kind, effects, perCent }] of rows.entries())
    for (const sign of kind.sign ? [kind.sign] : ([1, -1] as const)) {
      const signed = sign === 1 ? effects : effects.map((cents) => -cents)
      if (found.some((one) => isAlike(one.effects, signed))) continue
      found.push({ kind, key: `${kind.id} ${sign}`, sign, row, effects: signed, perCent: sign * perCent })
    }
  return found
}

function isAlike(a: Float64Array, b: Float64Array): boolean {
  for (let i = 0; i < a.length; i++) if (!(Math.abs(a[i]! - b[i]!) < 1e-6)) return false
  return true
}

/** The same for every way of the same fault, or pair of faults; empty of a hand that is well. */
export function faultKey([one, other]: readonly Candidate[]): string {
  if (!one) return ''
  if (!other) return one.key
  return one.key < other.key ? `${one.key} + ${other.key}` : `${other.key} + ${one.key}`
}
