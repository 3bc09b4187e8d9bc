import { notesOfShape, shapeOf, type Family, type Finger, type TapeSchool } from '../instrument'
import { centsAboveOpen, centsToRatio, type Note, type TuningSystem } from '../pitch'

export interface PlanRequest {
  readonly family: Family
  /** Open strings, lowest first. */
  readonly tuning: readonly Note[]
  readonly system: TuningSystem
  readonly school: TapeSchool
}

/** What one string asks of a tape, whatever its length. */
export interface PlannedString {
  readonly open: Note
  readonly note: Note
  /** Above the open string. */
  readonly cents: number
  /** What a finger on the tape's middle sounds off the note on this string, in cents; sharp is positive. */
  readonly remainderCents: number
  /** Place from the nut as a part of the string's length. */
  readonly part: number
}

/** One tape in terms of pitch alone. */
export interface PlannedMark {
  readonly finger: Finger
  readonly shapeId: string
  readonly strings: readonly PlannedString[]
  /** The string with the largest remainder. */
  readonly worst: PlannedString
  /** Place of the tape's middle from the nut as a part of the string's length. */
  readonly part: number
}

/**
 * The pitches behind a school's tapes. They hold for every size, so a page that follows a length as it is typed plans
 * once. Where the tuning system asks different strings for different places (just intonation does), the tape takes the
 * place with the smallest worst error: midway, in cents, between the extremes.
 */
export function planTapes({ family, tuning, system, school }: PlanRequest): PlannedMark[] {
  return school.marks.map(({ finger, shapeId }) => {
    const wanted = tuning.map((open) => {
      const note = noteUnder(family, open, finger, shapeId)
      return { open, note, cents: centsAboveOpen(system, open, note) }
    })
    const cents = wanted.map((string) => string.cents)
    const tapeCents = (Math.min(...cents) + Math.max(...cents)) / 2
    const strings = wanted.map((string) => ({
      ...string,
      remainderCents: tapeCents - string.cents,
      part: partOf(string.cents),
    }))
    const worst = strings.reduce((a, b) => (Math.abs(b.remainderCents) > Math.abs(a.remainderCents) ? b : a))
    return { finger, shapeId, strings, worst, part: partOf(tapeCents) }
  })
}

/** x / L = 1 − 1/r. */
function partOf(cents: number): number {
  return 1 - 1 / centsToRatio(cents)
}

function noteUnder(family: Family, open: Note, finger: Finger, shapeId: string): Note {
  const shape = shapeOf(family, shapeId)
  if (!shape) throw new Error(`${family.id} has no hand shape ${shapeId}`)
  const stopped = notesOfShape(open, shape).find((n) => n.finger === finger)
  if (!stopped) throw new Error(`finger ${finger} stops nothing in ${shapeId} on the ${family.id}`)
  return stopped.note
}
