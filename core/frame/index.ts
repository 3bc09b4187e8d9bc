export { frameWidthMm, frameOnString, widestFrameMm } from './width'
export { frameAlongNeck, narrowFrom, positionAtSemitone, OCTAVE_SEMITONES } from './neck'
export type { NeckPlace } from './neck'
export { octaveChecks } from './octave'
export type { OctaveCheck } from './octave'
export { handMeasureFault, spanFault, HAND_LIMITS_MM, TYPICAL_FINGERTIP_MM } from './hand'
export type { HandFault, HandMeasure, HandMeasures, Thumb } from './hand'
export {
  fitOfInstrument,
  fitOfWidth,
  comfortableSize,
  sizesToLend,
  firstPositionWidthMm,
  nextSize,
  FIRST_POSITION,
  PIVOT_SHARE,
  TYPICAL_REACH,
} from './size-fit'
export type { FrameFit, HandFit, HandSpan, SizeFit } from './size-fit'
export { theilSen } from './theil-sen'
export type { RobustLine } from './theil-sen'
export {
  growthOf,
  spanDoubt,
  whenSpanIs,
  FEWEST_MEASUREMENTS,
  GROWTH_CONFIDENCE,
  SHORTEST_HISTORY_DAYS,
  FURTHEST_FORECAST_DAYS,
} from './growth'
export type { Growth, SpanDoubt, SpanOnDay, WhenFits } from './growth'
export { touching, ROLL_SHARE, LIFT_SHARE } from './touching'
export type { TouchAdvice, Touching } from './touching'
