import type { Family } from './family'
import { boardFor } from './board'

/** Measurements of one string length differ by this much from hand to hand. Common practice, no source. */
export const STRING_MEASURE_MM = 1
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
 * askew; one string off that line is a slip of the ruler; lengths far apart belong to different instruments.
 */
export function judgeStrings(family: Family, lengthsMm: readonly number[]): StringsJudgement {
  const shortestMm = Math.min(...lengthsMm)
  const longestMm = Math.max(...lengthsMm)
  if (longestMm > shortestMm * (1 + CONTRADICTORY)) return { code: 'contradictory', shortestMm, longestMm }

  const off = worstOffLine(lengthsMm)
  if (off && Math.abs(off.offMm) > STRING_MEASURE_MM) return { code: 'one_off', ...off }
  const rise = slope(lengthsMm) * (lengthsMm.length - 1)
  if (Math.abs(rise) <= STRING_MEASURE_MM) return { code: 'even', spreadMm: longestMm - shortestMm }
  const { spreadAtBridgeMm } = boardFor(family, (shortestMm + longestMm) / 2)
  return {
    code: 'askew',
    byMm: Math.abs(rise),
    side: rise < 0 ? 'low' : 'high',
    degrees: (Math.atan(Math.abs(rise) / spreadAtBridgeMm) * 180) / Math.PI,
  }
}

/** The string that is furthest from the line through all the others; three strings have no line to spare. */
function worstOffLine(lengthsMm: readonly number[]): { stringIndex: number; offMm: number } | undefined {
  if (lengthsMm.length < 4) return undefined
  const residuals = lengthsMm.map((length, index) => {
    const others = lengthsMm.flatMap((l, i) => (i === index ? [] : [{ x: i, y: l }]))
    const { at, perStep } = line(others)
    return { stringIndex: index, offMm: length - (at + perStep * index), spread: scatter(others) }
  })
  // Only where the others do lie on a line is the odd one out the one to blame.
  const [clearest] = residuals.sort((a, b) => a.spread - b.spread)
  return clearest && clearest.spread <= STRING_MEASURE_MM / 2
    ? { stringIndex: clearest.stringIndex, offMm: clearest.offMm }
    : undefined
}

interface Point {
  readonly x: number
  readonly y: number
}

function line(points: readonly Point[]): { at: number; perStep: number } {
  const n = points.length
  const meanX = points.reduce((sum, p) => sum + p.x, 0) / n
  const meanY = points.reduce((sum, p) => sum + p.y, 0) / n
  const perStep =
    points.reduce((sum, p) => sum + (p.x - meanX) * (p.y - meanY), 0) /
    points.reduce((sum, p) => sum + (p.x - meanX) ** 2, 0)
  return { at: meanY - perStep * meanX, perStep }
}

function slope(lengthsMm: readonly number[]): number {
  return lengthsMm.length < 2 ? 0 : line(lengthsMm.map((y, x) => ({ x, y }))).perStep
}

function scatter(points: readonly Point[]): number {
  const { at, perStep } = line(points)
  return Math.max(...points.map((p) => Math.abs(p.y - at - perStep * p.x)))
}
