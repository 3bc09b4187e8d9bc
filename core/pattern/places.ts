import { touching, type Touching } from '../frame'
import { placeOfNote, type Finger, type Stringing } from '../instrument'
import { touchingFingers, type FingerStop, type Placement } from '../technique'

/** A stop with its place, mm from the nut. */
export interface PlacedStop extends FingerStop {
  readonly placeMm: number
  /** From the finger before; undefined for the first. */
  readonly stepMm: number | undefined
}

/** Where the fingers of a placement lie on one instrument. */
export function placedStops(stringing: Stringing, { stringIndex, stops }: Placement): PlacedStop[] {
  const places = stops.map((stop) => placeOfNote(stringing, stringIndex, stop.note))
  return stops.map((stop, i) => ({
    ...stop,
    placeMm: places[i]!,
    stepMm: i === 0 ? undefined : places[i]! - places[i - 1]!,
  }))
}

/** Two fingers a half step apart, and what their fingertips make of the room. */
export interface TouchingPair {
  readonly pair: readonly [Finger, Finger]
  readonly touching: Touching
}

/** The half steps of a placement, as its places lie on this instrument, against the player's fingertips. */
export function touchingPairs(
  { pattern }: Placement,
  places: readonly PlacedStop[],
  fingertipMm: number,
): TouchingPair[] {
  if (!pattern) return []
  return touchingFingers(pattern).flatMap((pair) => {
    const stepMm = places.find((p) => p.finger === pair[1])?.stepMm
    return stepMm === undefined ? [] : [{ pair, touching: touching(stepMm, fingertipMm) }]
  })
}
