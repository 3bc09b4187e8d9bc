export { judgeTake, FINGERS_NEEDED } from './judge'
export { OPEN_STRING_TOLERANCE_CENTS } from './open-strings'
export type { Finding, FingerSummary, JudgedTake, Verdict } from './types'
