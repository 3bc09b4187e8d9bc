import { deviation, group, greatest, mean } from 'd3-array'
import { studentsT } from '../../stats'
import type { EvidenceNote } from '../evidence'
import type { Beside } from './beside'

/** Shorter notes are not held. */
const HELD_MS = 400
const LEAST_NOTES = 4
/** A held pitch that moves by more is heard to wobble; ears notice from about 5. From memory. */
const WOBBLE_CENTS = 6

/** The pitch of a held note wobbles: a finger that collapses, or pulls the string aside. The finger that does it most is named. */
export const wobble: Beside = ({ notes }) => {
  const held = notes.filter(({ landing, weight }) => weight > 0 && (landing.heard?.lastsMs ?? 0) >= HELD_MS)
  const fingers = [...group(held, ({ target }) => target.finger)].flatMap(([finger, own]) => {
    const cents = wobbles(own)
    if (cents.length < LEAST_NOTES) return []
    const middle = mean(cents)!
    const surely = middle - (studentsT(0.95, cents.length - 1) * deviation(cents)!) / Math.sqrt(cents.length)
    return surely > WOBBLE_CENTS ? [{ finger, cents: middle }] : []
  })
  const worst = greatest(fingers, ({ cents }) => cents)
  return worst && { code: 'wobble', ...worst }
}

function wobbles(notes: readonly EvidenceNote[]): number[] {
  return notes.flatMap(({ landing }) => landing.heard?.wobbleCents ?? [])
}
