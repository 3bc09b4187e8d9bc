import { sum } from 'd3-array'
import type { Candidate } from './candidates'
import { dot, sizesOf } from './least-squares'
import type { Weighed, Weighing } from './weighing'

/**
 * The first notes look surer than they are: what they make likeliest is likeliest by their chance too, and often not what it turns out to
 * be. From simulation (`npm run bench:verdict`): so many times as many are needed after sixteen, and the power by which that falls.
 */
const EARLY = { notes: 16, factor: 1.8, power: 1.33, most: 2.2 } as const

/**
 * About how many notes more, on the same fingers, would tell the first explanation from its nearest rival: each note adds on
 * average half the squared distance between what the two say, in scatters, to the logarithm of their odds.
 * Source: the expected weight of evidence, S. Kullback, Information Theory and Statistics (1959), ch. 1.
 *
 * @param wantedOdds of the first against all others.
 * @returns Infinity where no notes would.
 */
export function moreNotes({ notes, explanations, scatterCents }: Weighing, wantedOdds: number): number {
  const [first, ...others] = explanations
  const rival = others.find((one) => !saysAsMuch(one, first!))
  if (!first || !rival || notes.length === 0) return Infinity
  const has = Math.log(first.probability / (1 - first.probability))
  const wants = Math.log(wantedOdds)
  const apart = squaredDistance(notes, first.candidates, rival.candidates)
  const count = sum(notes, ({ weight }) => weight)
  const each = apart / (2 * scatterCents ** 2) / count
  if (!(each > 0)) return Infinity
  const early =
    first.candidates.length === 0
      ? 1
      : Math.min(EARLY.most, EARLY.factor * (EARLY.notes / count) ** EARLY.power)
  return Math.max(1, Math.ceil((early * (wants - has)) / each))
}

/** What the first says of the notes that the rival cannot say, cents squared, over all notes. */
function squaredDistance(
  notes: Weighing['notes'],
  first: readonly Candidate[],
  rival: readonly Candidate[],
): number {
  const sizesCents = sizesOf(notes, first)
  const w = Float64Array.from(notes, ({ weight }) => weight)
  const said = Float64Array.from(notes, (_, i) =>
    first.reduce((s, { effects }, k) => s + sizesCents[k]! * effects[i]!, 0),
  )
  const mimics = notes.map((note, i) => ({ ...note, cents: said[i]! }))
  const own = sizesOf(mimics, rival)
  const left = said.map((cents, i) => rival.reduce((s, { effects }, k) => s - own[k]! * effects[i]!, cents))
  const squares = dot(w, left, left)
  if (first.length > 0) return squares
  // A hand that is well says nothing: the rival is what it would have had to say.
  const size = sizesOf(notes, rival)
  const theirs = Float64Array.from(notes, (_, i) =>
    rival.reduce((s, { effects }, k) => s + size[k]! * effects[i]!, 0),
  )
  return dot(w, theirs, theirs)
}

/** What the first says and something beside it is no rival; of a hand that is well everything is. */
function saysAsMuch({ candidates }: Weighed, { candidates: first }: Weighed): boolean {
  return (
    first.length > 0 &&
    first.every(({ kind, sign }) => candidates.some((one) => one.kind.id === kind.id && one.sign === sign))
  )
}
