import { shapeOf, type Family, type Finger, type FingerFormId, type TapeSchool } from '../instrument'
import { INTERVALS, type Interval } from '../pitch'

/** What a tape marks: an interval above the open string, and the finger it is for where one has its name there. */
export interface MarkSpec {
  /** The interval itself, `1.2` for a major second: one place has one id, whatever school asks for it. */
  readonly id: string
  readonly interval: Interval
  readonly finger: Finger | null
  readonly form: FingerFormId | null
}

export function markId({ steps, semitones }: Interval): string {
  return `${steps}.${semitones}`
}

/** The mark of an interval, by the finger and form that the family's hand gives it. */
export function markOf(family: Family, interval: Interval): MarkSpec {
  const id = markId(interval)
  const named = family.forms.find((f) => markId(f.interval) === id)
  return { id, interval, finger: named?.finger ?? null, form: named?.form ?? null }
}

/** Every mark a teacher may lay by hand on this family: each semitone to the octave, in every spelling a finger has. */
export function handMarks(family: Family): MarkSpec[] {
  const named = family.forms.map((form) => form.interval)
  const others = Object.values(INTERVALS).filter(
    ({ semitones }) => !named.some((interval) => interval.semitones === semitones),
  )
  // Of two spellings that no finger has, the first is enough.
  const unnamed = others.filter((o, i) => others.findIndex((p) => p.semitones === o.semitones) === i)
  return [...named, ...unnamed]
    .sort((a, b) => a.semitones - b.semitones || a.steps - b.steps)
    .map((interval) => markOf(family, interval))
}

/** The marks with these ids, nearest to the nut first; an id that is no mark of the family is left out. */
export function marksWithIds(family: Family, ids: readonly string[]): MarkSpec[] {
  return handMarks(family).filter((mark) => ids.includes(mark.id))
}

/** The marks of a school of teaching, nearest to the nut first. */
export function marksOfSchool(family: Family, school: TapeSchool): MarkSpec[] {
  return school.marks
    .map(({ finger, shapeId }) => {
      const interval = shapeOf(family, shapeId)?.fingers[finger]
      if (!interval) throw new Error(`finger ${finger} stops nothing in ${shapeId} on the ${family.id}`)
      return markOf(family, interval)
    })
    .sort((a, b) => a.interval.semitones - b.interval.semitones)
}
