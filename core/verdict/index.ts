export { judgeHand, FINGERS_NEEDED, OPEN_STRING_TOLERANCE_CENTS } from './judge'
export type { Finding, FingerSummary, JudgedTake, Verdict } from './types'
export { judgeTake, leadingVerdict, NOTHING_HEARD } from './judge-take'
export type { HandVerdict } from './judge-take'
