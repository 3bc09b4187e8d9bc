import { extent, group, median } from 'd3-array'
import { noteName } from '../pitch'
import type { Finger } from '../instrument'
import type { Evidence, EvidenceNote } from './evidence'
import type { OtherPattern } from './types'

/** So near to a half step off a finger plays another pattern; no hand is off by so much and right otherwise. */
const HALF_STEP = { from: 75, to: 125 } as const
/** On one string alone a note that is off may be its own fault: nearer, and more than one, which may be a slip. */
const ON_ONE_STRING = { from: 85, to: 115, leastNotes: 2 } as const
/** The others stand within this, and no further from one another, so the hand is where it should be and no frame is wide. */
const OTHERS = { withinCents: 45, apartCents: 35 } as const
/** Of fewer fingers nobody can tell which is elsewhere. */
const LEAST_FINGERS = 3

/**
 * Some fingers play other notes, a pattern with its half step elsewhere, on every string or on one of them; or the whole hand
 * does, alike, or all of one string. Undefined where neither is so. Common practice, no source; the limits are our own.
 */
export function otherPattern({ notes, stringing }: Evidence): OtherPattern | undefined {
  const fingers = [...new Set(notes.map(({ target }) => target.finger))].sort()
  if (fingers.length < LEAST_FINGERS) return undefined
  const strings = [...new Set(notes.map(({ target }) => target.stringIndex))]
  // A finger that is elsewhere on every string, before one that is so on a string of its own.
  const everywhere = patternOf(
    fingers,
    (finger) => notes.filter(({ target }) => target.finger === finger),
    HALF_STEP,
  )
  if (everywhere) return everywhere
  if (strings.length < 2) return undefined
  for (const stringIndex of strings) {
    const [own, elsewhere] = [true, false].map((here) =>
      notes.filter(({ target }) => (target.stringIndex === stringIndex) === here),
    ) as [EvidenceNote[], EvidenceNote[]]
    const of = (finger: Finger) => own.filter(({ target }) => target.finger === finger)
    const found = patternOf([...new Set(own.map(({ target }) => target.finger))].sort(), of, ON_ONE_STRING)
    if (!found || middlesOf(elsewhere).some((cents) => Math.abs(cents) > OTHERS.withinCents)) continue
    const moved =
      found.finger === null ? own : [found.finger, ...(found.with ?? [])].flatMap((finger) => of(finger))
    if (moved.length < ON_ONE_STRING.leastNotes) continue
    return { ...found, string: noteName(stringing.tuning[stringIndex]!) }
  }
  return undefined
}

/** Of these fingers the ones that are elsewhere, where the others are not; all of them, if there are several. */
function patternOf(
  fingers: readonly Finger[],
  notesOf: (finger: Finger) => readonly EvidenceNote[],
  { from, to }: { readonly from: number; readonly to: number },
): OtherPattern | undefined {
  const middles = fingers.map((finger) => ({ finger, cents: median(notesOf(finger), ({ cents }) => cents)! }))
  const away = middles.filter(({ cents }) => Math.abs(cents) >= from && Math.abs(cents) <= to)
  const [first, ...others] = away
  if (!first) return undefined
  const halfSteps = first.cents > 0 ? 1 : -1
  if (others.some(({ cents }) => Math.sign(cents) !== halfSteps)) return undefined
  if (others.length > 0 && away.length === middles.length) return { finger: null, halfSteps }
  const [low = 0, high = 0] = extent(
    middles.filter((one) => !away.includes(one)),
    ({ cents }) => cents,
  )
  const isHere = Math.max(-low, high) <= OTHERS.withinCents && high - low <= OTHERS.apartCents
  if (!isHere) return undefined
  return {
    finger: first.finger,
    ...(others.length > 0 && { with: others.map(({ finger }) => finger) }),
    halfSteps,
  }
}

/** Of each finger and string. */
function middlesOf(notes: readonly EvidenceNote[]): number[] {
  return [...group(notes, ({ target }) => `${target.stringIndex} ${target.finger}`).values()].map((own) =>
    median(own, ({ cents }) => cents)!,
  )
}
