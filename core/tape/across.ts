import {
  centsOnString,
  isEven,
  placeOnString,
  stringAcrossMm,
  stringLengthMm,
  type Stringing,
} from '../instrument'
import { centsPerMm } from '../stop'
import type { PlannedMark } from './plan'

/** Beyond this on any string a straight tape misleads the finger; the tolerance of a trained player (docs/trade.md § 7). Common practice, no source. */
export const ACROSS_TOLERANCE_CENTS = 10

/** What a finger on a tape sounds on every string. */
export interface TapeAcross {
  /** Where the tape's middle line crosses each string, mm from the nut. */
  readonly placesMm: readonly number[]
  /** Off the note on each string, cents; sharp is positive. */
  readonly remaindersCents: readonly number[]
  /** The largest remainder, whatever its sign. */
  readonly worstCents: number
}

/** Newton's steps end here; one or two are mostly enough, as errors are nearly linear in mm. */
const ENOUGH_CENTS = 1e-4
const MOST_STEPS = 30

/**
 * The place of one tape squared to the strings with the smallest worst error over them: there the sharpest string is as
 * sharp as the flattest is flat. Exact for even strings that are not pressed, otherwise by Newton's steps. Derived.
 */
export function straightPlace(
  stringing: Stringing,
  mark: Pick<PlannedMark, 'strings' | 'middleCents'>,
): number {
  const { strings, middleCents } = mark
  let place = placeOnString(stringing, 0, middleCents)
  if (isEven(stringing)) return place
  const centsPer = centsPerMm(stringLengthMm(stringing, 0), place)
  for (let step = 0; step < MOST_STEPS; step++) {
    let sharpest = -Infinity
    let flattest = Infinity
    for (let i = 0; i < strings.length; i++) {
      const off = centsOnString(stringing, i, place) - strings[i]!.cents
      if (off > sharpest) sharpest = off
      if (off < flattest) flattest = off
    }
    const middle = (sharpest + flattest) / 2
    if (Math.abs(middle) < ENOUGH_CENTS) break
    place -= middle / centsPer
  }
  return place
}

/** What a tape that crosses the strings at `placesMm` leaves over on each. */
export function remaindersAt(
  stringing: Stringing,
  mark: PlannedMark,
  placesMm: readonly number[],
): TapeAcross {
  const remaindersCents = mark.strings.map(
    ({ cents }, i) => centsOnString(stringing, i, placesMm[i] ?? 0) - cents,
  )
  return {
    placesMm,
    remaindersCents,
    worstCents: Math.max(...remaindersCents.map(Math.abs)),
  }
}

export interface AskewTape extends TapeAcross {
  /** Of the tape against a right angle to the strings; positive when it lies nearer to the bridge on the high side. */
  readonly degrees: number
}

/**
 * The best tape that need not be square: x = a + b·y with the smallest worst error, y being each string's distance from
 * the middle of the board where the square tape would lie. The best line of a minimax fit errs alike, with alternating
 * signs, on three of the strings (Chebyshev), so every three are tried. Errors are taken as linear in mm, which a tape's are.
 */
export function askewTape(stringing: Stringing, mark: PlannedMark): AskewTape {
  const square = straightPlace(stringing, mark)
  const wanted = mark.strings.map(({ cents }, i) => {
    const place = placeOnString(stringing, i, cents)
    return {
      y: stringAcrossMm(stringing.board, mark.strings.length, i, square),
      x: place,
      weight: centsPerMm(stringLengthMm(stringing, i), place),
    }
  })
  let best = { a: square, b: 0, worst: Infinity }
  best.worst = worstOf(wanted, best.a, best.b)
  for (let i = 0; i < wanted.length; i++)
    for (let j = i + 1; j < wanted.length; j++)
      for (let k = j + 1; k < wanted.length; k++) {
        const line = alternating(wanted[i]!, wanted[j]!, wanted[k]!)
        const worst = worstOf(wanted, line.a, line.b)
        if (worst < best.worst) best = { ...line, worst }
      }
  const placesMm = wanted.map(({ y }) => best.a + best.b * y)
  return { degrees: (Math.atan(best.b) * 180) / Math.PI, ...remaindersAt(stringing, mark, placesMm) }
}

interface Wanted {
  readonly x: number
  readonly y: number
  readonly weight: number
}

/** The line that misses three places by e, −e and e: w_i (a + b y_i − x_i) = ±e, solved for a and b. */
function alternating(p: Wanted, q: Wanted, r: Wanted): { a: number; b: number } {
  // a + b y + s e / w = x, with s = 1, −1, 1; differences take a out, then e.
  const [ep, eq, er] = [1 / p.weight, -1 / q.weight, 1 / r.weight]
  const [y1, x1, e1] = [q.y - p.y, q.x - p.x, eq - ep]
  const [y2, x2, e2] = [r.y - p.y, r.x - p.x, er - ep]
  const b = (x1 * e2 - x2 * e1) / (y1 * e2 - y2 * e1)
  const e = e1 !== 0 ? (x1 - b * y1) / e1 : (x2 - b * y2) / e2
  return { a: p.x - b * p.y - e * ep, b }
}

function worstOf(wanted: readonly Wanted[], a: number, b: number): number {
  return Math.max(...wanted.map(({ x, y, weight }) => Math.abs(weight * (a + b * y - x))))
}
