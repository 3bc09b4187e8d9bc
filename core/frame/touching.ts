/** What players do where two fingertips have less room than they need. */
export type TouchAdvice = 'room' | 'touch' | 'roll' | 'lift' | 'replace'

export interface Touching {
  /** Middle to middle of the two places, mm. */
  readonly stepMm: number
  /** Between the fingertips; negative where they would overlap. */
  readonly gapMm: number
  readonly overlapMm: number
  readonly advice: TouchAdvice
}

/** Less than this is no overlap: nobody reads a fingertip closer. */
const READ_MM = 0.05
/** Two fingertips that lie this close touch. */
const TOUCH_MM = 1.5
/** Shares of a fingertip's width up to which rolling, and lifting, makes the room. Common practice, no source. */
export const ROLL_SHARE = 0.2
export const LIFT_SHARE = 0.45

/**
 * Two neighbouring fingertips of `fingertipMm`, their places `stepMm` apart. Where the step is narrower than a fingertip
 * they overlap: a little is rolled away, more asks one finger to lift for the other, much more to replace it.
 */
export function touching(stepMm: number, fingertipMm: number): Touching {
  const gapMm = stepMm - fingertipMm
  const overlapMm = gapMm < -READ_MM ? -gapMm : 0
  return { stepMm, gapMm, overlapMm, advice: adviceFor(gapMm, overlapMm / fingertipMm) }
}

function adviceFor(gapMm: number, share: number): TouchAdvice {
  if (gapMm > TOUCH_MM) return 'room'
  if (gapMm >= -READ_MM) return 'touch'
  if (share <= ROLL_SHARE) return 'roll'
  return share <= LIFT_SHARE ? 'lift' : 'replace'
}
