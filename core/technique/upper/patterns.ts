import type { Family } from '../../instrument'
import { patternOf, WIDEST_STEP, type Pattern } from '../pattern'
import { FINGERS } from '../stops'

/**
 * Every row of half and whole steps, and with one augmented step as harmonic minors ask, that the frame can be stretched or
 * narrowed to: at most a semitone wider than at rest.
 */
export function letterPatterns(family: Family): Pattern[] {
  return family.frames.flatMap((frame, frameIndex) =>
    letterRows(frame.semitones)
      .map((steps) => patternOf(family, frameIndex, FINGERS, stopsOf(steps)))
      .sort((a, b) => rank(a) - rank(b)),
  )
}

/** The first to learn first: half and whole steps of the frame at rest, then stretched and narrowed, then augmented. */
function rank({ steps, spread }: Pattern): number {
  const firstTaught = FIRST_TAUGHT.indexOf(steps.join(''))
  if (firstTaught >= 0) return firstTaught
  return (
    100 + (steps.includes(WIDEST_STEP) ? 10 : 0) + (spread === 'usual' ? 0 : spread === 'stretched' ? 1 : 2)
  )
}

/** The order in which they are mostly taught: 2 and 3 touch, 1 and 2, 3 and 4, none. Common practice, no source. */
const FIRST_TAUGHT = ['212', '122', '221', '222', '121', '112', '211', '111']

function letterRows(rest: number): number[][] {
  const rows: number[][] = []
  for (let a = 1; a <= WIDEST_STEP; a++)
    for (let b = 1; b <= WIDEST_STEP; b++)
      for (let c = 1; c <= WIDEST_STEP; c++) {
        const row = [a, b, c]
        const augmented = row.filter((step) => step === WIDEST_STEP).length
        if (a + b + c <= rest + 1 && augmented < 2) rows.push(row)
      }
  return rows
}

function stopsOf(steps: readonly number[]): number[] {
  const stops = [0]
  for (const step of steps) stops.push(stops.at(-1)! + step)
  return stops
}
