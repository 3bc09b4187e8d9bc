import { notesOfShape, shapeOf, type Family, type Finger, type TapeSchool } from '../instrument'
import { centsAboveOpen, type Note, type TuningSystem } from '../pitch'
import { centsAtPlace, placeOfCents } from '../stop'

/** A thin tape as teachers cut it, mm. Common practice, no source. */
export const DEFAULT_TAPE_WIDTH_MM = 3

export interface ChartRequest {
  readonly family: Family
  /** Open strings, lowest first. */
  readonly tuning: readonly Note[]
  /** Nut edge to bridge top, mm. */
  readonly lengthMm: number
  readonly system: TuningSystem
  readonly school: TapeSchool
  readonly tapeWidthMm?: number
}

/** What one string asks of a tape, and how far the tape as laid is from it. */
export interface StringPlace {
  readonly open: Note
  readonly note: Note
  readonly cents: number
  readonly placeMm: number
  /** Sharp is positive: what a finger on the tape's middle sounds on this string. */
  readonly remainderCents: number
}

/** One straight tape across all strings. All places in mm from the nut. */
export interface TapeMark {
  readonly finger: Finger
  readonly shapeId: string
  readonly nearEdgeMm: number
  readonly middleMm: number
  readonly farEdgeMm: number
  /** From near edge to far edge, in cents at this place. */
  readonly widthCents: number
  readonly strings: readonly StringPlace[]
  /** The string with the largest remainder. */
  readonly worst: StringPlace
}

/**
 * Where each tape of a school goes. Where the tuning system asks different strings for different places (just
 * intonation does), the tape takes the place with the smallest worst error: midway, in cents, between the extremes.
 *
 * @example tapeChart({ family: violin, tuning: violin.tuning, lengthMm: 284.5, system: fifths, school })
 * // 1st finger 31.6 mm, 3rd finger 71.1 mm
 */
export function tapeChart(request: ChartRequest): TapeMark[] {
  const { school, lengthMm } = request
  const tapeWidthMm = request.tapeWidthMm ?? DEFAULT_TAPE_WIDTH_MM
  return school.marks.map(({ finger, shapeId }) => {
    const wanted = wantedPlaces(request, finger, shapeId)
    const cents = wanted.map((place) => place.cents)
    const tapeCents = (Math.min(...cents) + Math.max(...cents)) / 2
    const middleMm = placeOfCents(lengthMm, tapeCents)
    const nearEdgeMm = middleMm - tapeWidthMm / 2
    const farEdgeMm = middleMm + tapeWidthMm / 2
    const strings = wanted.map((place) => ({ ...place, remainderCents: tapeCents - place.cents }))
    const worst = strings.reduce((a, b) => (Math.abs(b.remainderCents) > Math.abs(a.remainderCents) ? b : a))
    return {
      finger,
      shapeId,
      nearEdgeMm,
      middleMm,
      farEdgeMm,
      widthCents: centsAtPlace(lengthMm, farEdgeMm) - centsAtPlace(lengthMm, nearEdgeMm),
      strings,
      worst,
    }
  })
}

function wantedPlaces({ family, tuning, lengthMm, system }: ChartRequest, finger: Finger, shapeId: string) {
  const shape = shapeOf(family, shapeId)
  if (!shape) throw new Error(`${family.id} has no hand shape ${shapeId}`)
  return tuning.map((open) => {
    const stopped = notesOfShape(open, shape).find((n) => n.finger === finger)
    if (!stopped) throw new Error(`finger ${finger} stops nothing in ${shapeId} on the ${family.id}`)
    const cents = centsAboveOpen(system, open, stopped.note)
    return { open, note: stopped.note, cents, placeMm: placeOfCents(lengthMm, cents) }
  })
}
