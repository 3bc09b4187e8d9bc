import { deviation, mean } from 'd3-array'
import { studentsT } from '../../stats'
import type { Beside } from './beside'

/** Fewer notes that were heard to their end say nothing of an ear. */
const LEAST_NOTES = 6
/** An ear that mends takes away so much of what a landing misses, surely. */
const LEAST_MENDED = 0.3
/** Landings nearer than this part of the tolerance leave nothing to mend. */
const FAR = 0.6

/**
 * Landing far, settled near: the ear repairs what the hand misses. Told where the notes, pair by pair, end nearer than they began
 * by more than a third of what was missed, nineteen times in twenty (Student’s t of paired differences).
 */
export const earRepairs: Beside = ({ notes, toleranceCents }) => {
  const heard = notes.flatMap(({ landing, weight }) =>
    // Where a swing's middle lies off the landing it is the vibrato's, and no ear's.
    landing.heard && weight > 0 && landing.heard.vibratoWidthCents === undefined
      ? [{ landed: Math.abs(landing.cents), settled: Math.abs(landing.heard.settledCents) }]
      : [],
  )
  if (heard.length < LEAST_NOTES) return undefined
  const landedCents = mean(heard, ({ landed }) => landed)!
  const settledCents = mean(heard, ({ settled }) => settled)!
  if (landedCents < FAR * toleranceCents) return undefined
  const mended = heard.map(({ landed, settled }) => landed - settled)
  const error = deviation(mended)! / Math.sqrt(heard.length)
  const surely = mean(mended)! - studentsT(0.95, heard.length - 1) * error
  if (surely < LEAST_MENDED * landedCents) return undefined
  return { code: 'ear_repairs', landedCents, settledCents }
}
