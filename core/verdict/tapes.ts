import { group, greatest, mean } from 'd3-array'
import type { Finger } from '../instrument'
import { tapeOf } from '../take'
import type { Evidence } from './evidence'

/** A tape that a finger follows to a wrong place. */
export interface MisplacedTape {
  readonly finger: Finger
  /** Where it lies, and where the finger’s note is, mm from the nut. */
  readonly tapeMm: number
  readonly placeMm: number
  /** What the tape makes of the note. */
  readonly cents: number
}

/** A tape this far off, in tolerances, spoils the note of whoever aims at it; nobody hears less. */
const OFF = 0.5
const LEAST_CENTS = 5
/** A finger follows its tape where it lands nearer to it than to its place: past so much of the way. */
const FOLLOWS = 0.5

/**
 * The tape that lies in a wrong place on every string that was played, and that its finger follows: what the tape does is not
 * blamed on the hand. Tapes compromise between strings, so one that is right on any of them lies well.
 */
export function misplacedTape({ notes, stringing, toleranceCents }: Evidence, tapesMm: readonly number[]) {
  if (tapesMm.length === 0) return undefined
  const least = Math.max(LEAST_CENTS, OFF * toleranceCents)
  const counted = notes.filter(({ weight }) => weight > 0)
  const found = [...group(counted, ({ target }) => target.finger)].flatMap(
    ([finger, own]): MisplacedTape[] => {
      const aimed = own.flatMap(({ target, cents }) => {
        const tape = tapeOf(stringing, target, tapesMm)
        return tape ? [{ target, cents, tape }] : []
      })
      const [first] = aimed
      if (!first || aimed.length < own.length) return []
      const cents = mean(aimed, ({ tape }) => tape.offCents)!
      const isOff = aimed.every(
        ({ tape }) => Math.abs(tape.offCents) > least && Math.sign(tape.offCents) === Math.sign(cents),
      )
      const follows = mean(aimed, ({ cents: landed, tape }) => landed / tape.offCents)!
      if (!isOff || follows < FOLLOWS) return []
      return [{ finger, tapeMm: first.tape.placeMm, placeMm: first.target.placeMm, cents }]
    },
  )
  return greatest(found, ({ cents }) => Math.abs(cents))
}
