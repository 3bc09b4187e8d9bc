import { group, least, mean, variance } from 'd3-array'
import { studentsT } from '../../stats'
import { SURE_OF_FOUR, type Beside } from './beside'

const LEAST_NOTES = 3
/**
 * A finger's tone is dull where its notes have so many decibels less in high partials than those of the other fingers on the same
 * strings. Our own number: of simulated bodies, in which neighbouring notes differ by one or two; no wooden one was measured.
 */
const DULL_DB = 4

/**
 * Pitch right, no ring, dull tone: a finger that touches the neighbour string, or has too little weight. Told of one finger against
 * the others, since every instrument has a brightness of its own.
 */
export const dull: Beside = ({ notes }) => {
  const heard = notes.flatMap(({ target, landing, weight }) => {
    const brightness = landing.heard?.brightnessDb
    return weight > 0 && brightness !== undefined ? [{ ...target, brightness }] : []
  })
  // Each against its own string: strings differ more than fingers.
  const byString = group(heard, ({ stringIndex }) => stringIndex)
  const level = heard.map(({ finger, stringIndex, brightness }) => {
    const others = byString.get(stringIndex)!.filter((other) => other.finger !== finger)
    return { finger, db: brightness - (mean(others, (other) => other.brightness) ?? NaN) }
  })
  const found = [...group(level, ({ finger }) => finger)].flatMap(([finger, own]) => {
    const values = own.map(({ db }) => db).filter(Number.isFinite)
    if (values.length < LEAST_NOTES) return []
    const db = mean(values)!
    const error = Math.sqrt(variance(values)! / values.length)
    const surely = db + studentsT(SURE_OF_FOUR, values.length - 1) * error
    return surely < -DULL_DB ? [{ finger, db }] : []
  })
  const worst = least(found, ({ db }) => db)
  return worst && { code: 'dull', finger: worst.finger, lessDb: -worst.db }
}
