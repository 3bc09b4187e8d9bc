import { fitLine, type Point } from '../stats'
import type { Family } from './family'
import { boardFor } from './board'

/** A string is read to about half a millimetre, one standard deviation. Common practice, no source. */
export const STRING_SIGMA_MM = 0.5
/** Beyond so many standard deviations it is not the reading: on four even strings something is said by chance once in thirty times. */
const QUESTIONED_SIGMAS = 2.7
/** Strings of one instrument that differ by more than this part were not measured on one instrument. Common practice, no source. */
const CONTRADICTORY = 0.05

/** What lengths that differ from string to string say of the bridge. */
export type StringsJudgement =
  | { readonly code: 'even'; readonly spreadMm: number }
  | {
      readonly code: 'askew'
      /** Longest minus shortest outer string along the fitted line, mm. */
      readonly byMm: number
      /** On this side the bridge stands too far from the nut. */
      readonly side: 'low' | 'high'
      /** Of the bridge against a right angle to the strings. */
      readonly degrees: number
    }
  | { readonly code: 'one_off'; readonly stringIndex: number; readonly offMm: number }
  | { readonly code: 'contradictory'; readonly shortestMm: number; readonly longestMm: number }

/**
 * Judges string lengths measured one by one, lowest string first. A straight line through them is a bridge that stands
 * askew; one string off the line of the others is a slip of the ruler; lengths far apart belong to different instruments.
 * Each is judged by the deviation that it has itself when every string is read to {@link STRING_SIGMA_MM}.
 */
export function judgeStrings(family: Family, lengthsMm: readonly number[]): StringsJudgement {
  const shortestMm = Math.min(...lengthsMm)
  const longestMm = Math.max(...lengthsMm)
  if (longestMm > shortestMm * (1 + CONTRADICTORY)) return { code: 'contradictory', shortestMm, longestMm }

  const points = lengthsMm.map((y, x) => ({ x, y }))
  const off = oddOneOut(points)
  if (off) return { code: 'one_off', ...off }
  const line = fitLine(points)
  const steps = lengthsMm.length - 1
  const rise = (line?.slope ?? 0) * steps
  const riseSigma = (STRING_SIGMA_MM * steps) / Math.sqrt(line?.spreadX ?? Infinity)
  if (!line || Math.abs(rise) <= QUESTIONED_SIGMAS * riseSigma)
    return { code: 'even', spreadMm: longestMm - shortestMm }
  const { spreadAtBridgeMm } = boardFor(family, (shortestMm + longestMm) / 2)
  return {
    code: 'askew',
    byMm: Math.abs(rise),
    side: rise < 0 ? 'low' : 'high',
    degrees: (Math.atan(Math.abs(rise) / spreadAtBridgeMm) * 180) / Math.PI,
  }
}

/**
 * The string furthest from the line through all the others, in its own deviations: the line is drawn out to an outer string,
 * which is known less well than an inner one. Only where the others lie on a line themselves is it the one to blame. Three
 * strings have no line to spare. Source: deletion residuals, R. D. Cook and S. Weisberg, Residuals and Influence in
 * Regression (1982) ch. 2, with the deviation known.
 */
function oddOneOut(points: readonly Point[]): { stringIndex: number; offMm: number } | undefined {
  if (points.length < 4) return undefined
  const judged = points.map((point, stringIndex) => {
    const others = points.filter((other) => other !== point)
    const line = fitLine(others)!
    const lever = 1 / others.length + (point.x - line.meanX) ** 2 / line.spreadX
    const offMm = point.y - line.at(point.x)
    return {
      stringIndex,
      offMm,
      sigmas: Math.abs(offMm) / (STRING_SIGMA_MM * Math.sqrt(1 + lever)),
      othersOff: Math.max(...others.map((other) => Math.abs(other.y - line.at(other.x)))),
    }
  })
  const worst = judged.reduce((a, b) => (b.sigmas > a.sigmas ? b : a))
  if (worst.sigmas <= QUESTIONED_SIGMAS || worst.othersOff > QUESTIONED_SIGMAS * STRING_SIGMA_MM)
    return undefined
  return { stringIndex: worst.stringIndex, offMm: worst.offMm }
}
