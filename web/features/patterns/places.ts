import {
  centsAboveOpen,
  placeOnBed,
  touching,
  touchingFingers,
  TYPICAL_FINGERTIP_MM,
  type Placement,
  type FingerStop,
  type Note,
  type StringBed,
  type Touching,
  type TuningSystem,
} from '#core'
import type { Student } from '#contracts'

/** A stop with its place, mm from the nut. */
export interface PlacedStop extends FingerStop {
  readonly placeMm: number
  /** From the finger before; undefined for the first. */
  readonly stepMm: number | undefined
}

/** Where the fingers of a hand lie on one instrument. */
export function placesOf(
  hand: Placement,
  bed: StringBed,
  tuning: readonly Note[],
  system: TuningSystem,
): PlacedStop[] {
  const open = tuning[hand.stringIndex]!
  const places = hand.stops.map((stop) =>
    placeOnBed(bed, hand.stringIndex, centsAboveOpen(system, open, stop.note)),
  )
  return hand.stops.map((stop, i) => ({
    ...stop,
    placeMm: places[i]!,
    stepMm: i === 0 ? undefined : places[i]! - places[i - 1]!,
  }))
}

/** The half steps of a hand, as its places lie on this instrument, against its fingertips. */
export function touchingsOf(
  hand: Placement,
  places: readonly PlacedStop[],
  fingertipMm: number,
): { readonly pair: readonly [number, number]; readonly touching: Touching }[] {
  if (!hand.pattern) return []
  return touchingFingers(hand.pattern).flatMap((pair) => {
    const stepMm = places.find((p) => p.finger === pair[1])?.stepMm
    return stepMm === undefined ? [] : [{ pair, touching: touching(stepMm, fingertipMm) }]
  })
}

/** Age at which hands have an adult's fingertips, about. From memory. */
const ADULT_AGE = 14

/** Width of a student's fingertips, measured or, said as such, typical. */
export function fingertipOf(
  student: Student | undefined,
  year: number,
): { readonly widthMm: number; readonly isMeasured: boolean } {
  const measured = student?.hand?.fingertipWidthMm
  if (measured) return { widthMm: measured, isMeasured: true }
  const isChild = student?.birthYear ? year - student.birthYear < ADULT_AGE : false
  return { widthMm: TYPICAL_FINGERTIP_MM[isChild ? 'child' : 'adult'], isMeasured: false }
}
