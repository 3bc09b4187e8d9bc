import { mean } from 'd3-array'
import type { Beside } from './beside'

const LEAST_NOTES = 3
/** A vibrato goes down from the note and back; past this it is heard above. Ears notice from about 5. From memory. */
const ABOVE_CENTS = 5
/** Part of the notes with a vibrato that must swing above. */
const MOSTLY = 0.6

/** Swings above the pitch: a vibrato upwards, or begun too early. */
export const vibrato: Beside = ({ notes }) => {
  const swings = notes.flatMap(({ landing, weight }) => {
    const { vibratoWidthCents: width, vibratoTopCents: top } = landing.heard ?? {}
    return weight > 0 && width != null && top != null ? [{ width, top }] : []
  })
  const above = swings.filter(({ top }) => top > ABOVE_CENTS)
  if (above.length < LEAST_NOTES || above.length < MOSTLY * swings.length) return undefined
  return {
    code: 'vibrato',
    aboveCents: mean(above, ({ top }) => top)!,
    widthCents: mean(above, ({ width }) => width)!,
  }
}
