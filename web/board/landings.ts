import { placeOnString, type LandedPlace, type Stringing } from '#core'
import type { BoardLanding } from './board'

/** Each note of a place: those that count, and those that are left out; the last `most` of both. */
export function dotsOf(
  { landings, strays }: Pick<LandedPlace, 'landings' | 'strays'>,
  most = Infinity,
): Pick<BoardLanding, 'notesMm' | 'straysMm'> {
  const recent = landings.slice(-most)
  const [notes, left] = [false, true].map((isStray) =>
    recent.filter((landing) => strays.includes(landing) === isStray).map(({ placeMm }) => placeMm),
  )
  return { notesMm: notes!, straysMm: left! }
}

/** Where fingers landed, place by place, as the board draws it. */
export function landingsOnBoard(
  stringing: Stringing,
  places: readonly LandedPlace[],
  toleranceCents: number,
): BoardLanding[] {
  return places.flatMap(({ target, meanMm, meanCents, landings, strays }) => {
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
        ...dotsOf({ landings, strays }),
        toleranceMm: [placeAt(-toleranceCents), placeAt(toleranceCents)] as const,
        isOff: Math.abs(meanCents) > toleranceCents,
      },
    ]
  })
}
