export { judge, judgeTake, FINGERS_NEEDED } from './judge'
export { strayLandings } from './evidence'
export { OPEN_STRING_TOLERANCE_CENTS } from './open-strings'
export { earlierTakes, MOST_EARLIER } from './earlier'
export type { PastRecord } from './earlier'
export { summaryOf } from './summary'
export type { TakeSummary } from './summary'
export { FEWEST_WEEKS, SHORTEST_TREND_DAYS, trendOf } from './trend'
export type { Trend, TrendPoint } from './trend'
export type {
  Belief,
  EarlierSaid,
  EarlierTake,
  Finding,
  FingerSummary,
  Judged,
  JudgedTake,
  Likely,
  ScatterEstimate,
  Verdict,
} from './types'
