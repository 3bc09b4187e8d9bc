import { randomNormal } from 'd3-random'
import { centsOnString, THUMB, type Digit, type Finger, type Stringing } from '../instrument'
import { targetsOf, type Exercise, type Target } from '../take'
import { NO_FAULTS, type PlayerFaults, type RandomSource } from './player'

/**
 * What may be wrong with a hand that plays, row by row as a teacher reads it off the notes. Lengths are mm towards the bridge,
 * pitches cents. All zero is a hand that is never off.
 */
export interface HandFaults extends PlayerFaults {
  /** How far the whole hand has crept up when the exercise ends. */
  readonly creepMm: number
  /** Every half step between two fingers is this much too wide, and every whole step as much too narrow. */
  readonly halfStepMm: number
  /** Cello: the thumb's base joint is locked: 2 lies this far up, 1–2 wide and 2–3 narrow. */
  readonly lockedThumbMm: number
  /** On the lowest string 4 lies this far down, the other fingers in proportion; on the next string half of it. */
  readonly elbowMm: number
  /** Cello: 1 of an extended hand lies this far up. */
  readonly pinchedMm: number
  /** Cello: 2, 3 and 4 of an extended hand have gone back with 1 by this. */
  readonly draggedMm: number
  /** Part of what a landing misses that the ear mends while the note lasts, 0 … 1. */
  readonly repairs: number
  /** Standard deviation of the pitch of a note that is held. */
  readonly wobbleCents: number
  /** The open strings' own error, lowest first, beside `stringCents`. */
  readonly openCents: readonly number[]
  /** How far each finger is off, this way or that, once the tapes are covered. */
  readonly withoutTapesCents: number
  /** Part of the ring that a touched neighbour or too little weight takes away, 0 … 1. */
  readonly dullness: number
  /** The finger that does so; null of them all. */
  readonly dullFinger: Finger | null
}

export const STEADY_HAND: HandFaults = {
  ...NO_FAULTS,
  creepMm: 0,
  halfStepMm: 0,
  lockedThumbMm: 0,
  elbowMm: 0,
  pinchedMm: 0,
  draggedMm: 0,
  repairs: 0,
  wobbleCents: 0,
  openCents: [],
  withoutTapesCents: 0,
  dullness: 0,
  dullFinger: null,
}

/** Where a finger lands, in cents off its note. */
export type Hand = (target: Target, through: number) => number

/**
 * A hand with these faults on one instrument. It is asked for the landing of each note of the exercise in turn, `through` of
 * which (0 … 1) has been played.
 */
export function faultyHand(
  source: RandomSource,
  stringing: Stringing,
  exercise: Exercise,
  faults: HandFaults,
  { tapesCovered = false } = {},
): Hand {
  const targets = targetsOf(stringing, exercise)
  const scatter = randomNormal.source(source)(0, faults.scatterCents)
  const uncertain = new Map<Digit, number>(
    ([1, 2, 3, 4] as const).map((finger) => [finger, source() < 0.5 ? -1 : 1]),
  )
  const hands = new Map<number, OneString>()
  for (const { stringIndex } of targets)
    if (!hands.has(stringIndex)) hands.set(stringIndex, handOn(targets, stringIndex))
  return (target, through) => {
    const { finger, stringIndex, placeMm } = target
    const open = faults.stringCents + (faults.openCents[stringIndex] ?? 0)
    if (finger === 0) return open
    const on = hands.get(stringIndex)!
    const landedMm = placeMm + offsetMm(target, finger, on, stringing, faults) + through * faults.creepMm
    const covered = tapesCovered ? (uncertain.get(finger) ?? 0) * faults.withoutTapesCents : 0
    return centsOnString(stringing, stringIndex, landedMm) - target.cents + open + covered + scatter()
  }
}

/** What an exercise asks of the hand on one string. */
interface OneString {
  /** Its stopped notes, each once, from the nut. */
  readonly places: readonly Target[]
  readonly isExtended: boolean
}

function handOn(targets: readonly Target[], stringIndex: number): OneString {
  const places = targets
    .filter((t) => t.stringIndex === stringIndex && t.finger !== 0)
    .filter((t, i, all) => all.findIndex((other) => other.finger === t.finger) === i)
    .sort((a, b) => a.placeMm - b.placeMm)
  const [first, second] = [1, 2].map((finger) => places.find((t) => t.finger === finger))
  return { places, isExtended: !!first && !!second && second.cents - first.cents > 150 }
}

function offsetMm(
  { placeMm, stringIndex }: Target,
  finger: Exclude<Digit, 0>,
  { places, isExtended }: OneString,
  { family }: Stringing,
  faults: HandFaults,
): number {
  const first = places[0]?.placeMm ?? placeMm
  const width = (places.at(-1)?.placeMm ?? placeMm) - first
  const along = width > 0 ? (placeMm - first) / width : 0
  const low = stringIndex === 0 ? 1 : stringIndex === 1 ? 0.5 : 0
  const isCello = family.hold === 'knees'
  return (
    faults.handOffsetMm +
    along * faults.frameErrorMm +
    (finger === THUMB ? 0 : (faults.fingerOffsetMm[finger] ?? 0)) +
    stepsMm(places, placeMm, faults.halfStepMm) -
    (low * faults.elbowMm * (finger === THUMB ? 0 : finger)) / 4 +
    (isCello && finger === 2 ? faults.lockedThumbMm : 0) +
    (isCello && isExtended ? (finger === 1 ? faults.pinchedMm : -faults.draggedMm) : 0)
  )
}

/** What wrong half and whole steps below a place add up to. */
function stepsMm(places: readonly Target[], placeMm: number, halfStepMm: number): number {
  let sum = 0
  for (let i = 1; i < places.length && places[i]!.placeMm <= placeMm; i++)
    sum += places[i]!.cents - places[i - 1]!.cents < 150 ? halfStepMm : -halfStepMm
  return sum
}
