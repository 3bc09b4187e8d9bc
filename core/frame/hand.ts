import { MM_PER_UNIT, type Finger, type LengthUnit } from '../instrument'

export type Thumb = 'straight' | 'double_jointed'

/** A hand as it was measured once; what was not measured is null. All lengths in mm. */
export interface HandMeasures {
  /** Tip of 1 to tip of 4, middle to middle, as the hand lies open without effort. */
  readonly comfortableSpanMm: number
  /** The same with the fingers spread as far as they go without pain. */
  readonly reachedSpanMm: number | null
  /** Base knuckle to tip. */
  readonly fingerLengthsMm: Readonly<Partial<Record<Finger, number>>> | null
  /** Breadth of the second fingertip where it stops the string. */
  readonly fingertipWidthMm: number | null
  readonly thumb: Thumb | null
}

/** What hands are like, from the smallest child to the largest adult, with room to spare. From memory. */
export const HAND_LIMITS_MM = {
  span: [30, 190],
  fingerLength: [25, 130],
  fingertipWidth: [5, 25],
} as const
export type HandMeasure = keyof typeof HAND_LIMITS_MM

/** A fingertip where nobody has measured it, mm. From memory. */
export const TYPICAL_FINGERTIP_MM = { smallChild: 9, child: 10, adult: 14 } as const

export type HandFault =
  | {
      readonly code: 'hand_impossible'
      readonly measure: HandMeasure
      readonly valueMm: number
      readonly limitsMm: readonly [number, number]
      /** The unit it was probably read in, and what it would then be. */
      readonly likely: { readonly unit: LengthUnit; readonly valueMm: number } | undefined
    }
  | { readonly code: 'reach_below_comfort'; readonly comfortableMm: number; readonly reachedMm: number }

/** What is wrong with one measure of a hand in mm, if anything. */
export function handMeasureFault(measure: HandMeasure, valueMm: number): HandFault | undefined {
  const limitsMm = HAND_LIMITS_MM[measure]
  if (isWithin(valueMm, limitsMm)) return undefined
  const unit = (['cm', 'in'] as const).find((u) => isWithin(valueMm * MM_PER_UNIT[u], limitsMm))
  return {
    code: 'hand_impossible',
    measure,
    valueMm,
    limitsMm,
    likely: unit && { unit, valueMm: valueMm * MM_PER_UNIT[unit] },
  }
}

/** A hand that reaches less far than it lies at rest was measured the wrong way round. */
export function spanFault(comfortableMm: number, reachedMm: number | null): HandFault | undefined {
  const own = handMeasureFault('span', comfortableMm)
  if (own || reachedMm === null) return own
  return (
    handMeasureFault('span', reachedMm) ??
    (reachedMm < comfortableMm ? { code: 'reach_below_comfort', comfortableMm, reachedMm } : undefined)
  )
}

function isWithin(value: number, [least, most]: readonly [number, number]): boolean {
  return value >= least && value <= most
}
