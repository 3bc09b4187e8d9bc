import type { EvidenceNote } from './evidence'

/**
 * Inner products of what was played and of what each fault would do, by the notes' weights, under errors of which each follows the
 * one before by a part `correlation` of it: those of notes that hang together count for less where a fault moves neighbours alike,
 * and for more where it moves them apart.
 * Source: whitening of a first-order autoregression, D. Cochrane and G. H. Orcutt, J. Am. Stat. Assoc. 44 (1949) 32, with the first
 * note kept (S. J. Prais and C. B. Winsten, Cowles Commission paper 383, 1954).
 */
export interface Products {
  /** Of two rows, by their places in the list; cents squared where both are cents. */
  of(a: number, b: number, correlation: number): number
}

/** @param rows one number a note each; notes that weigh nothing are no part of the chain. */
export function productsOf(notes: readonly EvidenceNote[], rows: readonly ArrayLike<number>[]): Products {
  const counted = [...notes.keys()].filter((i) => notes[i]!.weight > 0)
  const roots = counted.map((i) => Math.sqrt(notes[i]!.weight))
  const scaled = rows.map((row) => Float64Array.from(counted, (i, k) => roots[k]! * row[i]!))
  const kept = new Map<number, Float64Array>()
  /** At one note, from note to note, and at both ends. */
  const sumsOf = (a: number, b: number) => {
    const key = a < b ? a * rows.length + b : b * rows.length + a
    const made = kept.get(key)
    if (made) return made
    const sums = sum(scaled[a]!, scaled[b]!)
    kept.set(key, sums)
    return sums
  }
  return {
    of(a, b, correlation) {
      const [same, next, ends] = sumsOf(a, b) as unknown as [number, number, number]
      if (correlation === 0) return same
      const square = correlation ** 2
      return ((1 + square) * same - correlation * next - square * ends) / (1 - square)
    },
  }
}

function sum(a: Float64Array, b: Float64Array): Float64Array {
  const last = a.length - 1
  let [same, next] = [0, 0]
  for (let i = 0; i <= last; i++) {
    same += a[i]! * b[i]!
    if (i > 0) next += a[i]! * b[i - 1]! + a[i - 1]! * b[i]!
  }
  return Float64Array.of(same, next, last < 0 ? 0 : a[0]! * b[0]! + a[last]! * b[last]!)
}
