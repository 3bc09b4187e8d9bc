import { fitLine, slopeInterval, studentsT, type FittedLine } from '../stats'

/** A number of the hand on a day, whatever its sign: how far off it was. */
export interface Measured {
  /** Days since any fixed day. */
  readonly day: number
  readonly off: number
}

/** What happened to a number while something was practised. */
export type Effect =
  | { readonly code: 'too_early'; readonly have: number; readonly need: number }
  | {
      readonly code: 'changed'
      /** From the first day of practice to the last look, with the interval that holds it nineteen times in twenty; negative is nearer. */
      readonly change: number
      readonly low: number
      readonly high: number
      /** It mended faster than before. Null where too little was heard before, or where that is not sure. It does not say by what. */
      readonly isFaster: boolean | null
    }

/** A line with an interval needs three looks. */
const LEAST_LOOKS = 3
const CONFIDENCE = 0.95

/**
 * How a number of the hand changed while an exercise was practised. The look at which the exercise was chosen is left out: it was chosen
 * since the hand was far off that day, and what is chosen at its worst comes nearer by itself (regression to the mean; F. Galton,
 * J. Anthropological Institute 15 (1886) 246). The change is the slope of a line through the looks since, times the days, with Student's
 * interval. Whether it went faster than before is asked of the two slopes (N. R. Draper and H. Smith, Applied Regression Analysis, ch. 14:
 * two lines with one scatter), so that a hand that mends by itself is not said to be helped. Both are counted in bench/practice.ts.
 *
 * @param looks in any order
 * @param begun the first day of practice; the newest look on or before it is the one at which it was chosen
 */
export function effectOf(looks: readonly Measured[], begun: number): Effect {
  const sorted = [...looks].sort((a, b) => a.day - b.day)
  const since = sorted.filter(({ day }) => day > begun)
  const before = sorted.filter(({ day }) => day <= begun).slice(0, -1)
  const line = since.length < LEAST_LOOKS ? undefined : lineOf(since)
  if (!line) return { code: 'too_early', have: since.length, need: Math.max(LEAST_LOOKS, since.length + 1) }
  const days = since.at(-1)!.day - begun
  const [low, high] = slopeInterval(line, CONFIDENCE)
  return {
    code: 'changed',
    change: line.slope * days,
    low: low * days,
    high: high * days,
    isFaster: before.length < LEAST_LOOKS ? null : isFaster(lineOf(before), line),
  }
}

function lineOf(looks: readonly Measured[]): FittedLine | undefined {
  return fitLine(looks.map(({ day, off }) => ({ x: day, y: off })))
}

/** Whether the second line falls faster than the first, beyond what their scatter would do in one of forty. */
function isFaster(before: FittedLine | undefined, since: FittedLine): boolean | null {
  if (!before) return null
  const degrees = before.degreesOfFreedom + since.degreesOfFreedom
  const left = before.sigma ** 2 * before.degreesOfFreedom + since.sigma ** 2 * since.degreesOfFreedom
  const sigma = Math.sqrt((left / degrees) * (1 / before.spreadX + 1 / since.spreadX))
  return since.slope - before.slope + studentsT((1 + CONFIDENCE) / 2, degrees) * sigma < 0 ? true : null
}
