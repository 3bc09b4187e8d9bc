export { judgeTake, FINGERS_NEEDED } from './judge'
export { OPEN_STRING_TOLERANCE_CENTS } from './open-strings'
export { sameHandTakes } from './earlier'
export { summaryOf } from './summary'
export type { TakeSummary } from './summary'
export { FEWEST_WEEKS, trendOf } from './trend'
export type { Trend, TrendPoint } from './trend'
export type {
  EarlierSaid,
  EarlierTake,
  Finding,
  FingerSummary,
  JudgedTake,
  ScatterEstimate,
  Verdict,
} from './types'
