import { placeOnString, type LandedPlace, type Stringing } from '#core'
import type { BoardLanding } from './board'

/** Where fingers landed, place by place, as the board draws it. */
export function landingsOnBoard(
  stringing: Stringing,
  places: readonly LandedPlace[],
  toleranceCents: number,
): BoardLanding[] {
  return places.flatMap(({ target, meanMm, meanCents, landings }) => {
    const { finger, stringIndex, placeMm, cents } = target
    if (finger === 0) return []
    const placeAt = (off: number) => placeOnString(stringing, stringIndex, cents + off)
    return [
      {
        finger,
        stringIndex,
        targetMm: placeMm,
        meanMm: placeMm + meanMm,
        meanCents,
        notesMm: landings.map((l) => l.placeMm),
        toleranceMm: [placeAt(-toleranceCents), placeAt(toleranceCents)] as const,
        isOff: Math.abs(meanCents) > toleranceCents,
      },
    ]
  })
}
