// Instruments and takes for tests; no part of what core offers.
import { familyOf, stringingOf, type Digit, type FamilyId, type StringingFacts } from './instrument'
import { fifths, type TuningSystem } from './pitch'
import { landingAtCents, shapeExercise, type Exercise, type Landing, type Take } from './take'

/** An instrument of this string length, unpressed and without rings unless `facts` say otherwise. */
export function strung(
  familyId: FamilyId,
  lengthMm: number,
  system: TuningSystem = fifths,
  facts: Partial<StringingFacts> = {},
) {
  const family = familyOf(familyId)
  return stringingOf({ family, sizeId: family.sizes[0]!.id, system, lengthsMm: [lengthMm], ...facts })
}

/** Where fingers landed, as [finger, cents off] in the order they were heard. */
export function landed(
  { stringing, exercise }: Pick<Take, 'stringing' | 'exercise'>,
  heard: readonly (readonly [Digit, number, onString?: number])[],
  sigmaCents = 4,
): Landing[] {
  return heard.map(([finger, cents, onString]) => {
    const expected = exercise.notes.find(
      (note) => note.finger === finger && (onString === undefined || note.stringIndex === onString),
    )
    if (!expected) throw new Error(`the exercise has no finger ${finger}`)
    return landingAtCents(stringing, expected, cents, { sigmaCents, atMs: null, source: 'meter' })
  })
}

/** A family's default hand shape, or another one, on one string. */
export function shaped(familyId: FamilyId, stringIndex = 2, shapeId?: string): Exercise {
  const family = familyOf(familyId)
  const shape = family.shapes.find((s) => s.id === (shapeId ?? family.defaultShapeId))!
  return shapeExercise(family.tuning, stringIndex, shape)
}
