import { familyOf, type FamilyId, type HoldId } from '../instrument'

/** How an instrument is made to fit a body, in numbers; what was not measured is null. Lengths in mm, angles in degrees. */
export interface BodyFitValues {
  /** Height of the chin rest’s plate over the top. */
  readonly chinRestMm: number | null
  /** Height of the shoulder rest under the chin rest, its wide end, and at the other. */
  readonly restNearMm: number | null
  readonly restFarMm: number | null
  /** Of five times with both hands away, how often the instrument stayed. */
  readonly handsOff: number | null
  /** From straight ahead towards the left side. */
  readonly bodyAngle: number | null
  /** The thumb behind the first finger, towards the nut; in front of it where negative. */
  readonly thumbMm: number | null
  /** What shows of the endpin. */
  readonly endpinMm: number | null
  /** The lowest peg above the ear; below it where negative. */
  readonly pegMm: number | null
  /** Height of the seat; null for a bass where one stands. */
  readonly seatMm: number | null
  /** How far the instrument leans from upright. */
  readonly lean: number | null
}

export type BodyFitPart = keyof BodyFitValues

/** What is measured of a family, in the order in which it is set up. */
export function bodyFitParts(family: FamilyId): readonly BodyFitPart[] {
  return PARTS[familyOf(family).hold]
}

const PARTS: Record<HoldId, readonly BodyFitPart[]> = {
  shoulder: ['chinRestMm', 'restNearMm', 'restFarMm', 'handsOff', 'bodyAngle', 'thumbMm'],
  knees: ['endpinMm', 'pegMm', 'seatMm', 'lean', 'thumbMm'],
  standing: ['endpinMm', 'pegMm', 'seatMm', 'lean'],
}

/** Beyond these a number is a slip of the pen. From memory. */
export const BODY_FIT_LIMITS: Record<BodyFitPart, readonly [number, number]> = {
  chinRestMm: [5, 60],
  restNearMm: [0, 90],
  restFarMm: [0, 90],
  handsOff: [0, 5],
  bodyAngle: [-30, 120],
  thumbMm: [-80, 80],
  endpinMm: [0, 700],
  pegMm: [-250, 250],
  seatMm: [200, 900],
  lean: [0, 60],
}

export const NO_BODY_FIT: BodyFitValues = {
  chinRestMm: null,
  restNearMm: null,
  restFarMm: null,
  handsOff: null,
  bodyAngle: null,
  thumbMm: null,
  endpinMm: null,
  pegMm: null,
  seatMm: null,
  lean: null,
}

export type BodyFitDoubt =
  | 'steep_rest'
  | 'falling_rest'
  | 'falls'
  | 'too_far_front'
  | 'too_far_out'
  | 'pegs_off'
  | 'leans_far'

/** The far end of the rest so much higher than the near one tilts the instrument steeply, mm. From memory. */
const STEEP_REST_MM = 25
/** The near end so much higher than the far one lets the instrument slide off the shoulder, mm. From memory. */
const FALLING_REST_MM = 45
/** A bass that leans further than this lies on the player; a cello, on the lap, more. Degrees. From memory. */
const MOST_LEAN: Partial<Record<HoldId, number>> = { standing: 30, knees: 50 }
/** Machine or pegs this close to the height that is looked for, mm; a cello's are looked for within more. From memory. */
const PEG_NEAR_MM: Partial<Record<HoldId, number>> = { standing: 60, knees: 120 }

/** What of a fit a teacher would look at again, with the reason to be told. Common practice, no source. */
export function bodyFitDoubts(family: FamilyId, fit: BodyFitValues): BodyFitDoubt[] {
  const { hold } = familyOf(family)
  const doubts: BodyFitDoubt[] = []
  const { restNearMm, restFarMm, handsOff, bodyAngle, pegMm } = fit
  if (restNearMm !== null && restFarMm !== null && restFarMm - restNearMm > STEEP_REST_MM)
    doubts.push('steep_rest')
  if (restNearMm !== null && restFarMm !== null && restNearMm - restFarMm > FALLING_REST_MM)
    doubts.push('falling_rest')
  if (fit.lean !== null && fit.lean > (MOST_LEAN[hold] ?? Infinity)) doubts.push('leans_far')
  if (handsOff !== null && handsOff < 5) doubts.push('falls')
  if (bodyAngle !== null && bodyAngle < 20) doubts.push('too_far_front')
  if (bodyAngle !== null && bodyAngle > 70) doubts.push('too_far_out')
  if (pegMm !== null && Math.abs(pegMm) > (PEG_NEAR_MM[hold] ?? Infinity)) doubts.push('pegs_off')
  return doubts.filter((doubt) => (hold === 'shoulder') !== OF_ENDPIN.has(doubt))
}

const OF_ENDPIN: ReadonlySet<BodyFitDoubt> = new Set(['pegs_off', 'leans_far'])

/** A part that changed by more than this between two fittings was rather misread than moved. From memory. */
const MOST_CHANGE: Record<BodyFitPart, number> = {
  chinRestMm: 20,
  restNearMm: 30,
  restFarMm: 30,
  handsOff: 5,
  bodyAngle: 45,
  thumbMm: 40,
  endpinMm: 250,
  pegMm: 200,
  seatMm: 250,
  lean: 20,
}

/** What changed more since it was last measured than is set up otherwise in one go. */
export function bodyFitJumps(before: BodyFitValues, now: BodyFitValues): BodyFitPart[] {
  return (Object.keys(MOST_CHANGE) as BodyFitPart[]).filter((part) => {
    const [was, is] = [before[part], now[part]]
    return was !== null && is !== null && Math.abs(is - was) > MOST_CHANGE[part]
  })
}
