import type { Family } from '../../instrument'
import { framePatterns } from '../framed/patterns'
import type { Pattern } from '../pattern'

/** Three letters of a cello lie under 1 and 4 with 2 or 3 between; all four fingers only in a chromatic scale. */
export function celloPatterns(family: Family): Pattern[] {
  return framePatterns(family, (fingers) => fingers.includes(1) && fingers.includes(4) && fingers.length > 2)
}
