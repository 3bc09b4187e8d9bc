export type {
  Family,
  FamilyId,
  Finger,
  Size,
  HandShape,
  TapeSchool,
  Frame,
  Position,
  BoardShape,
} from './family'
export { FAMILY_IDS, familyOf, sizeOf, shapeOf, schoolOf, notesOfShape, boardFor } from './lookup'
export { parseLength, MM_PER_UNIT } from './length'
export type { LengthUnit, ParsedLength } from './length'
export { judgeLength, SIZE_TOLERANCE } from './plausibility'
export type { LengthJudgement, LengthExplanation } from './plausibility'
