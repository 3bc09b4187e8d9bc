import type { EvidenceNote } from './evidence'

/**
 * Inner products of what was played and of what each fault would do, by the notes' weights, under errors each of which follows the
 * one before by a part `correlation` of it: notes that hang together count for less where a fault moves neighbours alike, and for
 * more where it moves them apart. Cents squared, rows being cents for a size of one.
 * Source: whitening of a first-order autoregression, D. Cochrane and G. H. Orcutt, J. Am. Stat. Assoc. 44 (1949) 32, with the first
 * note kept (S. J. Prais and C. B. Winsten, Cowles Commission paper 383, 1954).
 */
export interface Products {
  ofPlayed(correlation: number): number
  withPlayed(row: number, correlation: number): number
  of(a: number, b: number, correlation: number): number
}

/** @param rows one number a note each; notes that weigh nothing are no part of the chain. */
export function productsOf(notes: readonly EvidenceNote[], rows: readonly ArrayLike<number>[]): Products {
  const counted = [...notes.keys()].filter((i) => notes[i]!.weight > 0)
  const all = [...rows, notes.map(({ cents }) => cents)]
  const scaled = all.map((row) =>
    Float64Array.from(counted, (i) => Math.sqrt(notes[i]!.weight) * row[i]!),
  )
  const kept: (Sums | undefined)[] = Array.from({ length: all.length ** 2 })
  const of = (a: number, b: number, correlation: number) => {
    const key = Math.min(a, b) * all.length + Math.max(a, b)
    const { same, next, ends } = (kept[key] ??= sumsOf(scaled[a]!, scaled[b]!))
    const square = correlation ** 2
    return ((1 + square) * same - correlation * next - square * ends) / (1 - square)
  }
  const played = rows.length
  return {
    of,
    ofPlayed: (correlation) => of(played, played, correlation),
    withPlayed: (row, correlation) => of(row, played, correlation),
  }
}

/** Products at one note, from note to note, and at both ends. */
interface Sums {
  readonly same: number
  readonly next: number
  readonly ends: number
}

function sumsOf(a: Float64Array, b: Float64Array): Sums {
  const last = a.length - 1
  if (last < 0) return { same: 0, next: 0, ends: 0 }
  let same = a[0]! * b[0]!
  let next = 0
  for (let i = 1; i <= last; i++) {
    same += a[i]! * b[i]!
    next += a[i]! * b[i - 1]! + a[i - 1]! * b[i]!
  }
  return { same, next, ends: a[0]! * b[0]! + a[last]! * b[last]! }
}
