import { transpose, type Note } from '../pitch'
import { FAMILIES } from './families'
import type { Family, FamilyId, Finger, HandShape, Size, TapeSchool } from './family'

export const FAMILY_IDS = Object.keys(FAMILIES) as FamilyId[]

export function familyOf(id: FamilyId): Family {
  return FAMILIES[id]
}

export function sizeOf(family: Family, sizeId: string): Size | undefined {
  return family.sizes.find((size) => size.id === sizeId)
}

export function shapeOf(family: Family, shapeId: string): HandShape | undefined {
  return family.shapes.find((shape) => shape.id === shapeId)
}

export function schoolOf(family: Family, schoolId: string): TapeSchool | undefined {
  return family.schools.find((school) => school.id === schoolId)
}

/** The notes under the fingers of a shape on one open string, in finger order. */
export function notesOfShape(open: Note, shape: HandShape): { finger: Finger; note: Note }[] {
  return ([1, 2, 3, 4] as const).flatMap((finger) => {
    const interval = shape.fingers[finger]
    return interval ? [{ finger, note: transpose(open, interval) }] : []
  })
}

/** The board of an instrument with this string length, in proportion to its family's full size; all values in mm. */
export function boardFor(family: Family, stringLengthMm: number) {
  const scale = stringLengthMm / family.board.stringLengthMm
  return {
    stringLengthMm,
    lengthMm: family.board.lengthMm * scale,
    nutWidthMm: family.board.nutWidthMm * scale,
    endWidthMm: family.board.endWidthMm * scale,
    spreadAtNutMm: family.board.spreadAtNutMm * scale,
    spreadAtBridgeMm: family.board.spreadAtBridgeMm * scale,
  }
}
