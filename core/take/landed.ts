import { mean } from 'd3-array'
import { placeOnString, type Stringing } from '../instrument'
import { isSamePlace, targetOf, type Target } from './exercise'
import type { Landing } from './landing'

/** All landings on one place, together. */
export interface LandedPlace {
  readonly target: Target
  /** In the order in which they were heard. */
  readonly landings: readonly Landing[]
  /** Those that no mean counts, being left out as strays; never all of a place. */
  readonly strays: readonly Landing[]
  readonly meanCents: number
  /** From its place, towards the bridge; 0 of an open string. */
  readonly meanMm: number
}

const NONE: ReadonlySet<Landing> = new Set()

/** Where the fingers landed, place by place in the order in which each was first heard. */
export function landedPlaces(
  stringing: Stringing,
  landings: readonly Landing[],
  leftOut: ReadonlySet<Landing> = NONE,
): LandedPlace[] {
  const places: Landing[][] = []
  for (const landing of landings) {
    const known = places.find(([first]) => isSamePlace(first!, landing))
    if (known) known.push(landing)
    else places.push([landing])
  }
  return places.map((own) => {
    const target = targetOf(stringing, expectedOf(own[0]!))
    const kept = own.filter((landing) => !leftOut.has(landing))
    const counted = kept.length > 0 ? kept : own
    const meanCents = mean(counted, ({ cents }) => cents)!
    const meanMm =
      target.finger === 0
        ? 0
        : placeOnString(stringing, target.stringIndex, target.cents + meanCents) - target.placeMm
    const strays = own.filter((landing) => !counted.includes(landing))
    return { target, landings: own, strays, meanCents, meanMm }
  })
}

function expectedOf({ stringIndex, finger, note, positionId }: Landing) {
  return { stringIndex, finger, note, positionId }
}
