export { markId, markOf, handMarks, marksWithIds, marksOfSchool } from './marks'
export type { MarkSpec } from './marks'
export { planTapes } from './plan'
export type { PlannedMark, PlannedString } from './plan'
export { chartTapes, isThere, DEFAULT_TAPE, DEFAULT_TAPE_WIDTH_MM, TAPE_WIDTHS_MM } from './chart'
export type { StringPlace, TapeMark, TapeShape, TapeContact } from './chart'
export { straightPlace, askewTape, ACROSS_TOLERANCE_CENTS } from './across'
export type { AskewTape, TapeAcross } from './across'
export {
  toleranceMm,
  tapePiece,
  girthBoundsMm,
  actsAsFret,
  TOLERANCES_CENTS,
  THICK_TAPE_MM,
} from './tolerance'
export type { MeasuredGirth, TapePiece } from './tolerance'
export { markMoves, frameMoves, systemMoves } from './compare'
export type { MarkMove, FrameMove, SystemMove } from './compare'
export {
  tapeLives,
  tapesNow,
  tapesDue,
  USUAL_TAPE_INTERVALS,
  isMeasuredSinceBridge,
  lastDayOf,
  creepMm,
  hasCrept,
} from './life'
export {
  TAPE_EVENT_KINDS,
  WHOLE_INSTRUMENT_KINDS,
  CREEP_MM,
  CHECK_TAPES_AFTER_DAYS,
  CHECK_TAPES_WARM_HANDS_AFTER_DAYS,
  TRY_WITHOUT_AFTER_DAYS,
} from './life'
export type { TapeEvent, TapeEventKind, TapeLife, TapeDue, TapeIntervals, TapedInstrument } from './life'
export { stripPages, stripSheets } from './strip'
export type { StripMark, StripRequest, StripWords } from './strip'
export { ringRows, rowsToLayBy, silentMarks, ringStrength, whereabouts } from './ring-rows'
export type { RingRow, RingStrength, Whereabouts } from './ring-rows'
