import type { EvidenceNote } from './evidence'

/**
 * How the errors of a player hang together: the hand is off by some part of their variance and drifts slowly, the fingers by the rest,
 * each note anew.
 */
export interface Hanging {
  /** The hand's part of the variance, 0 … 1. */
  readonly hand: number
  /** The part of the hand's error that is left at the next note, 0 … 1. */
  readonly stays: number
}

/**
 * Inner products of what was played and of what each fault would do, by the notes' weights, under errors that hang together: notes
 * count for less where a fault moves neighbours alike, and for more where it moves them apart. Cents squared, rows being cents for a
 * size of one.
 * Source: whitening by the innovations of a state-space model, R. H. Shumway and D. S. Stoffer, Time Series Analysis and Its
 * Applications (4th ed. 2017), § 6.2 and 6.3; with a hand alone it is the first-order autoregression of Prais and Winsten (1954).
 */
export interface Products {
  ofPlayed(hanging: Hanging): number
  withPlayed(row: number, hanging: Hanging): number
  of(a: number, b: number, hanging: Hanging): number
  /** Logarithm of the determinant of the errors' correlations. */
  logDeterminant(hanging: Hanging): number
}

/** @param rows one number a note each; notes that weigh nothing are no part of the chain. */
export function productsOf(notes: readonly EvidenceNote[], rows: readonly ArrayLike<number>[]): Products {
  const counted = [...notes.keys()].filter((i) => notes[i]!.weight > 0)
  const scaled = [...rows, notes.map(({ cents }) => cents)].map((row) =>
    Float64Array.from(counted, (i) => Math.sqrt(notes[i]!.weight) * row[i]!),
  )
  const whitened = new Map<Hanging, Whitened>()
  const by = (hanging: Hanging) => {
    const made = whitened.get(hanging) ?? whitenedOf(scaled, counted.length, hanging)
    whitened.set(hanging, made)
    return made
  }
  const of = (a: number, b: number, hanging: Hanging) => {
    const { rows: own, kept } = by(hanging)
    const key = Math.min(a, b) * scaled.length + Math.max(a, b)
    return (kept[key] ??= dot(own[a]!, own[b]!))
  }
  const played = rows.length
  return {
    of,
    ofPlayed: (hanging) => of(played, played, hanging),
    withPlayed: (row, hanging) => of(row, played, hanging),
    logDeterminant: (hanging) => by(hanging).logDeterminant,
  }
}

interface Whitened {
  readonly rows: readonly Float64Array[]
  readonly logDeterminant: number
  /** Products that were asked for. */
  readonly kept: (number | undefined)[]
}

/** What each note says that those before it did not, over its standard deviation: the Kalman filter of a drifting hand. */
function whitenedOf(rows: readonly Float64Array[], count: number, { hand, stays }: Hanging): Whitened {
  const kept: (number | undefined)[] = Array.from({ length: rows.length ** 2 })
  if (hand === 0) return { rows, logDeterminant: 0, kept }
  const gains = new Float64Array(count)
  const sigmas = new Float64Array(count)
  const seen = Math.sqrt(hand)
  let [unknown, logDeterminant] = [1, 0]
  for (let i = 0; i < count; i++) {
    const variance = hand * unknown + (1 - hand)
    const gain = (stays * unknown * seen) / variance
    gains[i] = gain
    sigmas[i] = Math.sqrt(variance)
    logDeterminant += Math.log(variance)
    unknown = stays ** 2 * unknown + (1 - stays ** 2) - gain ** 2 * variance
  }
  const whiten = (row: Float64Array) => {
    let hand = 0
    return row.map((cents, i) => {
      const news = cents - seen * hand
      hand = stays * hand + gains[i]! * news
      return news / sigmas[i]!
    })
  }
  return { rows: rows.map(whiten), logDeterminant, kept }
}

function dot(a: Float64Array, b: Float64Array): number {
  let sum = 0
  for (let i = 0; i < a.length; i++) sum += a[i]! * b[i]!
  return sum
}

/**
 * The part of what a row says that one or two others say too, 0 … 1: the square of its multiple correlation with them.
 *
 * @param of inner product of two rows
 */
export function sharedBy(of: (p: number, q: number) => number, row: number, a?: number, b?: number): number {
  if (a === undefined) return 0
  const [xx, xa, aa] = [of(row, row), of(row, a), of(a, a)]
  if (b === undefined) return xa ** 2 / (aa * xx)
  const [xb, ab, bb] = [of(row, b), of(a, b), of(b, b)]
  return (xa ** 2 * bb - 2 * xa * xb * ab + xb ** 2 * aa) / ((aa * bb - ab ** 2) * xx)
}
