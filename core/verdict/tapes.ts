import { group, mean, median } from 'd3-array'
import { tapeOf } from '../take'
import type { Evidence, EvidenceNote } from './evidence'
import type { MisplacedTape } from './types'

/** A tape this far off, in tolerances, spoils the note of whoever aims at it; nobody hears less. */
const OFF = 0.5
const LEAST_CENTS = 5
/** A finger follows its tape where it lands nearer to it than to its place, and no further beyond it: so many times as far off. */
const FOLLOWS = { least: 0.5, most: 1.5 } as const
/**
 * It takes the blame where it spoils the note by itself, by a whole tolerance, and its finger lands on it: tapes are laid to a millimetre, and
 * one that lies a little to the side of a finger that is off for its own reasons is chance.
 */
const BLAMED = { tolerances: 1, least: 0.75, most: 1.25 } as const
/** So many fingers whose tapes lie well, or that have none, say where the hand is. */
const OTHERS = 2

/** Tapes that are followed, and those of them that are to blame for their fingers' notes; the furthest off first. */
export interface FollowedTapes {
  readonly told: readonly MisplacedTape[]
  readonly blamed: readonly MisplacedTape[]
}

/**
 * The tapes that lie in a wrong place on every string that was played, and that their fingers follow, the furthest off first. A
 * finger follows its tape away from where the others stand: a whole hand that is off follows no tape. Tapes compromise between
 * strings, so one that is right on any of them lies well. Common practice, no source; the limits are our own.
 */
export function followedTapes(
  { notes, stringing, toleranceCents }: Evidence,
  tapesMm: readonly number[],
): FollowedTapes {
  if (tapesMm.length === 0) return { told: [], blamed: [] }
  const least = Math.max(LEAST_CENTS, OFF * toleranceCents)
  const fingers = [
    ...group(
      notes.filter(({ weight }) => weight > 0),
      ({ target }) => target.finger,
    ),
  ].map(([finger, own]) => {
    const offs = own.map(({ target }) => tapeOf(stringing, target, tapesMm)?.offCents ?? 0)
    const cents = mean(offs)!
    const isOff = offs.every((off) => Math.abs(off) > least && Math.sign(off) === Math.sign(cents))
    return { finger, own, cents, isOff, landed: mean(own, (note) => note.cents)! }
  })
  const others = fingers.filter(({ isOff }) => !isOff)
  const hand = others.length >= OTHERS ? median(others, ({ landed }) => landed)! : 0
  const told = fingers
    .flatMap(({ finger, own, cents, isOff, landed }) => {
      const follows = (landed - hand) / cents
      if (!isOff || follows < FOLLOWS.least || follows > FOLLOWS.most) return []
      const { target } = own[0]!
      const tape: MisplacedTape = {
        finger,
        tapeMm: tapeOf(stringing, target, tapesMm)!.placeMm,
        placeMm: target.placeMm,
        cents,
      }
      return [{ tape, follows }]
    })
    .sort((a, b) => Math.abs(b.tape.cents) - Math.abs(a.tape.cents))
  const isBlamed = ({ tape, follows }: (typeof told)[number]) =>
    Math.abs(tape.cents) > BLAMED.tolerances * toleranceCents &&
    follows >= BLAMED.least &&
    follows <= BLAMED.most
  return {
    told: told.map(({ tape }) => tape),
    blamed: told.filter(isBlamed).map(({ tape }) => tape),
  }
}

/** The notes as they would have been on tapes that lie well: what these tapes explain is no fault of the hand, and no more than that. */
export function withoutTheseTapes(
  evidence: Evidence,
  followed: readonly MisplacedTape[],
  tapesMm: readonly number[],
): Evidence {
  if (followed.length === 0) return evidence
  const moved = (note: EvidenceNote): EvidenceNote => {
    if (!followed.some(({ finger }) => finger === note.target.finger)) return note
    const tape = tapeOf(evidence.stringing, note.target, tapesMm)
    return { ...note, cents: note.cents - (tape?.offCents ?? 0) }
  }
  return { ...evidence, notes: evidence.notes.map(moved) }
}
