export { judgeHand, FINGERS_NEEDED, OPEN_STRING_TOLERANCE_CENTS } from './judge'
export type { Finding, FingerSummary, JudgedTake, Verdict } from './types'
