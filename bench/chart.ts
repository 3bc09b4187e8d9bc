import {
  chartTapes,
  DEFAULT_TAPE_WIDTH_MM,
  familyOf,
  fifths,
  handMarks,
  marksOfSchool,
  placeOfCents,
  planTapes,
  schoolOf,
  stringingOf,
  type PressingChoice,
} from '#core'
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
  const strung = (lengthsMm: readonly number[]) =>
    stringingOf({ family, sizeId: '4/4', system: fifths, lengthsMm })
  const lengths = Float64Array.from({ length: CHARTS }, (_, i) => 178 + (150 * i) / CHARTS)
  const plan = planTapes({ tuning, system: fifths }, marksOfSchool(family, school))

  const ours = () => {
    let sum = 0
    for (const lengthMm of lengths)
      for (const mark of chartTapes(strung([lengthMm]), plan)) {
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
  return ratioOf('tape chart / bare loop', ours, bare, 3)
}

const INSTRUMENTS = 1000
const MARKS = 7
const RINGS = 6
const PRESSED: PressingChoice = { mode: 'typical', nutHeightMm: 0, endHeightMm: 0, material: 'steel' }

/**
 * A cupboard of instruments: seven marks on four strings of unequal length, pressing reckoned with, corrected by a fit of
 * six rings, against a bare loop for the ideal places of the same marks alone.
 */
export function benchAgainstLoop(): Ratio {
  const family = familyOf('violin')
  const { tuning } = family
  const marks = handMarks(family).slice(0, MARKS)
  const plan = planTapes({ tuning, system: fifths }, marks)
  const lengths = Array.from({ length: INSTRUMENTS }, (_, i) => 178 + (150 * i) / INSTRUMENTS)

  const ours = () => {
    let sum = 0
    for (const length of lengths) {
      const lengthsMm = [length, length + 0.4, length + 0.8, length + 1.2]
      const finds = plan.slice(0, RINGS).map(({ strings }, i) => {
        const stringIndex = i % 4
        const { cents } = strings[stringIndex]!
        const placeMm = placeOfCents(lengthsMm[stringIndex]! + 0.6, cents) + 0.2
        return { stringIndex, cents, placeMm, isTrusted: false }
      })
      const facts = { family, sizeId: '4/4', system: fifths, lengthsMm, pressing: PRESSED, finds }
      for (const mark of chartTapes(stringingOf(facts), plan))
        for (const string of mark.strings) sum += string.placeMm
    }
    return sum
  }

  const cents = plan.map(({ strings }) => strings.map((string) => string.cents))
  const bare = () => {
    let sum = 0
    for (const length of lengths)
      for (const mark of cents)
        for (let string = 0; string < 4; string++)
          sum += (length + 0.4 * string) * (1 - 2 ** (-mark[string]! / 1200))
    return sum
  }

  const [a, b] = [ours(), bare()]
  if (Math.abs(a / b - 1) > 0.02) throw new Error(`the two sides compute different places: ${a} and ${b}`)
  return ratioOf('cupboard of 1,000 with pressing, lengths and rings / bare loop', ours, bare, 15)
}
