import type { FingerOption } from './types'

/** Crossing strings against the line: to a lower one while it rises, to a higher one while it falls. Only where nothing else serves. */
const AGAINST_LINE = 40
const CROSSING = 0.3
const SKIPPED_STRING = 1.5

/** What the bow does from one note to the next. Common practice, no source. */
export function crossing(from: FingerOption, to: FingerOption, rise: number): number {
  const up = to.stringIndex - from.stringIndex
  if (up === 0) return 0
  const strings = Math.abs(up)
  return (
    strings * CROSSING +
    (strings - 1) * SKIPPED_STRING +
    (Math.sign(rise) === -Math.sign(up) ? AGAINST_LINE : 0)
  )
}

/** Whether a higher string has this note too: semitones from this string to the next. */
export function isPassed(openMidis: readonly number[], { stringIndex, semitones }: FingerOption): boolean {
  const next = openMidis[stringIndex + 1]
  return next !== undefined && semitones >= next - openMidis[stringIndex]!
}
