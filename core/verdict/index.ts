export { judgeHand, FINGERS_NEEDED, OPEN_STRING_TOLERANCE_CENTS, READING_SIGMA_CENTS } from './judge'
export type { Reading, HandCheck, Finding, FingerSummary, Verdict } from './types'
