export { judgeHand, FINGERS_NEEDED, OPEN_STRING_TOLERANCE_CENTS, READING_SIGMA_CENTS } from './judge'
export { checkFromMeter } from './meter'
export type { MeterCheck, MeterReading } from './meter'
export type { Reading, HandCheck, Finding, FingerSummary, Verdict } from './types'
