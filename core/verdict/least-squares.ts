import type { Candidate } from './candidates'
import type { EvidenceNote } from './evidence'

/** Least-squares sizes of one candidate, or of two together, in cents at the note that shows each most. */
export function sizesOf(notes: readonly EvidenceNote[], candidates: readonly Candidate[]): readonly number[] {
  const w = Float64Array.from(notes, ({ weight }) => weight)
  const y = Float64Array.from(notes, ({ cents }) => cents)
  const [a, b] = candidates
  if (!a) return []
  const aa = dot(w, a.effects, a.effects)
  const ya = dot(w, a.effects, y)
  if (!b) return [ya / aa]
  const bb = dot(w, b.effects, b.effects)
  const ab = dot(w, a.effects, b.effects)
  const yb = dot(w, b.effects, y)
  const determinant = aa * bb - ab * ab
  return [(ya * bb - yb * ab) / determinant, (yb * aa - ya * ab) / determinant]
}

/** What the candidates of these sizes do not explain, cents a note. */
export function leftOver(
  notes: readonly EvidenceNote[],
  candidates: readonly Candidate[],
  sizesCents: readonly number[],
): Float64Array {
  return Float64Array.from(notes, ({ cents }, i) =>
    candidates.reduce((left, { effects }, k) => left - sizesCents[k]! * effects[i]!, cents),
  )
}

export function dot(w: ArrayLike<number>, a: ArrayLike<number>, b: ArrayLike<number>): number {
  let sum = 0
  for (let i = 0; i < w.length; i++) sum += w[i]! * a[i]! * b[i]!
  return sum
}
