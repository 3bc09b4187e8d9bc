export type {
  Family,
  FamilyId,
  FamilySound,
  HoldId,
  Finger,
  Digit,
  Size,
  HandShape,
  TapeSchool,
  Frame,
  Position,
  BoardShape,
  FingerForm,
  FingerFormId,
} from './family'
export { HOLD_IDS, THUMB } from './family'
export {
  FAMILY_IDS,
  familiesHeld,
  familyFault,
  familyOf,
  sizeOf,
  readSize,
  readFamily,
  shapeOf,
  schoolOf,
  notesOfShape,
  typicalLengthMm,
  tuningFault,
  FEWEST_STRINGS,
  MOST_STRINGS,
} from './lookup'
export type { TuningFault } from './lookup'
export { boardFor, boardWidthMm, stringSpreadMm, stringAcrossMm } from './board'
export type { BoardMeasures } from './board'
export { PRESSING_MODES, pressingOf, typicalPressing } from './pressing-choice'
export type { PressingChoice } from './pressing-choice'
export { parseLength, plainFractions, MM_PER_UNIT } from './length'
export type { LengthUnit, ParsedLength } from './length'
export { judgeLength, SIZE_TOLERANCE } from './plausibility'
export type { LengthJudgement, LengthExplanation, MeasuredLength } from './plausibility'
export { judgeStrings, STRING_SIGMA_MM } from './strings'
export type { StringsJudgement } from './strings'
export {
  stringingOf,
  stringingOfInstrument,
  typicalStringing,
  findsOn,
  stringLengthMm,
  placeOnString,
  sourceOf,
  hasPlace,
  notesWithoutPlace,
  placeOfNote,
  centsOfNote,
  centsOnString,
  centsPerMmOnString,
  pressShiftMm,
  placeSigmaMm,
  heightOverBoardMm,
  isEven,
} from './stringing'
export type { InstrumentRecord, NamedFind, StringFind, Stringing, StringingFacts } from './stringing'
export { snapshotOf, readSnapshot } from './snapshot'
export type { ReadSnapshot, SnapshotFault, StringingSnapshot } from './snapshot'
