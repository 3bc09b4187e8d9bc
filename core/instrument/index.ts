export type {
  Family,
  FamilyId,
  Finger,
  Size,
  HandShape,
  TapeSchool,
  Frame,
  Grip,
  Position,
  BoardShape,
  FingerForm,
  FingerFormId,
} from './family'
export {
  FAMILY_IDS,
  familyOf,
  sizeOf,
  shapeOf,
  schoolOf,
  notesOfShape,
  boardFor,
  tuningFault,
  FEWEST_STRINGS,
  MOST_STRINGS,
} from './lookup'
export type { BoardMeasures, TuningFault } from './lookup'
export { parseLength, MM_PER_UNIT } from './length'
export type { LengthUnit, ParsedLength } from './length'
export { judgeLength, SIZE_TOLERANCE } from './plausibility'
export type { LengthJudgement, LengthExplanation } from './plausibility'
export { judgeStrings, STRING_MEASURE_MM } from './strings'
export type { StringsJudgement } from './strings'
