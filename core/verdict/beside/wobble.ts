import { deviation, group, greatest, mean } from 'd3-array'
import { studentsT } from '../../stats'
import type { EvidenceNote } from '../evidence'
import type { Beside } from './beside'

/** Shorter notes are not held: a finger gives way slowly. */
const HELD_MS = 700
const LEAST_NOTES = 4
/**
 * A held pitch that moves by more wobbles, as the ear measures it: its frames of 60 ms smooth away about half of what a finger
 * does. Ears notice from about 5; from memory.
 */
const WOBBLE_CENTS = 3

/**
 * The pitch of held notes wobbles: a finger that collapses, or pulls the string aside. Told of one finger or of all together, where
 * nineteen in twenty say so (Student's t); the finger that does it most is named.
 */
export const wobble: Beside = ({ notes }) => {
  const held = notes.filter(({ landing, weight }) => weight > 0 && (landing.heard?.lastsMs ?? 0) >= HELD_MS)
  const fingers = [...group(held, ({ target }) => target.finger)].flatMap(([finger, own]) => {
    const cents = wobbles(own)
    return cents.length < LEAST_NOTES ? [] : [{ finger, cents: mean(cents)!, isSure: isSurely(cents) }]
  })
  const sure = isSurely(wobbles(held)) ? fingers : fingers.filter(({ isSure }) => isSure)
  const worst = greatest(sure, ({ cents }) => cents)
  return worst && { code: 'wobble', finger: worst.finger, cents: worst.cents }
}

function isSurely(cents: readonly number[]): boolean {
  if (cents.length < LEAST_NOTES) return false
  const error = deviation(cents)! / Math.sqrt(cents.length)
  return mean(cents)! - studentsT(0.95, cents.length - 1) * error > WOBBLE_CENTS
}

function wobbles(notes: readonly EvidenceNote[]): number[] {
  return notes.flatMap(({ landing: { heard } }) =>
    // Beside a swing that is meant a wobble cannot be told.
    heard?.vibratoWidthCents === undefined ? (heard?.wobbleCents ?? []) : [],
  )
}
