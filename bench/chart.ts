import { chartTapes, DEFAULT_TAPE_WIDTH_MM, fifths, familyOf, planTapes, schoolOf } from '#core'
import { ratioOf, type Ratio } from './ratio'

const CHARTS = 20_000

/**
 * A full tape chart of a violin (every finger, four strings, edges and widths) against a bare
 * loop for the same numbers. The plan is made once, as on the page while a length is typed.
 */
export function chartAgainstLoop(): Ratio {
  const family = familyOf('violin')
  const school = schoolOf(family, 'every')!
  const { tuning } = family
  const lengths = Float64Array.from({ length: CHARTS }, (_, i) => 178 + (150 * i) / CHARTS)
  const plan = planTapes({ family, tuning, system: fifths, school })

  const ours = () => {
    let sum = 0
    for (const lengthMm of lengths)
      for (const mark of chartTapes(plan, lengthMm)) {
        sum += mark.nearEdgeMm + mark.middleMm + mark.farEdgeMm + mark.widthCents
        for (const string of mark.strings) sum += string.placeMm + string.remainderCents
      }
    return sum
  }

  const cents = [203.91, 407.82, 498.045, 701.955]
  const bare = () => {
    let sum = 0
    for (const length of lengths)
      for (const c of cents) {
        const middle = length * (1 - 2 ** (-c / 1200))
        const near = middle - DEFAULT_TAPE_WIDTH_MM / 2
        const far = middle + DEFAULT_TAPE_WIDTH_MM / 2
        const width = 1200 * Math.log2(length / (length - far)) - 1200 * Math.log2(length / (length - near))
        sum += near + middle + far + width
        for (let string = 0; string < tuning.length; string++)
          sum += length * (1 - 2 ** (-c / 1200)) + (c - c)
      }
    return sum
  }

  const [a, b] = [ours(), bare()]
  if (Math.abs(a / b - 1) > 1e-6) throw new Error(`the two sides compute different numbers: ${a} and ${b}`)
  return ratioOf('tape chart / bare loop', ours, bare, 5)
}
