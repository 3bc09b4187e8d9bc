import { z } from 'zod'
import { HAND_LIMITS_MM, handMeasureFault, type HandMeasure } from '#core'
import { Id, IsoDate } from './common'

const MEASURE_NAMES: Record<HandMeasure, string> = {
  span: 'the span from 1 to 4',
  fingerLength: 'the length of the finger',
  fingertipWidth: 'the width of the fingertip',
}

/** A length on a hand, in mm. */
function handLength(measure: HandMeasure) {
  const [least, most] = HAND_LIMITS_MM[measure]
  return z
    .number({ error: `Give ${MEASURE_NAMES[measure]} in mm.` })
    .refine((mm) => handMeasureFault(measure, mm) === undefined, {
      error: `No hand is like that: give ${MEASURE_NAMES[measure]} in mm, ${least} to ${most}.`,
    })
}

const measures = {
  measuredOn: IsoDate,
  /** Middle of the tip of 1 to middle of the tip of 4, the hand open without effort. */
  comfortableSpanMm: handLength('span'),
  /** The same, spread as far as it goes without pain. */
  reachedSpanMm: handLength('span').nullable(),
  /** Base knuckle to tip, of the fingers that were measured. */
  fingerLengthsMm: z
    .object({
      1: handLength('fingerLength').optional(),
      2: handLength('fingerLength').optional(),
      3: handLength('fingerLength').optional(),
      4: handLength('fingerLength').optional(),
    })
    .nullable(),
  /** Breadth of the second fingertip where it stops the string. */
  fingertipWidthMm: handLength('fingertipWidth').nullable(),
  thumb: z.enum(['straight', 'double_jointed']).nullable(),
}

export const HandMeasurement = z
  .object({ id: Id, ...measures, by: z.string() })
  .meta({ id: 'HandMeasurement' })

export const HandMeasurementDraft = z
  .object({
    ...measures,
    reachedSpanMm: measures.reachedSpanMm.default(null),
    fingerLengthsMm: measures.fingerLengthsMm.default(null),
    fingertipWidthMm: measures.fingertipWidthMm.default(null),
    thumb: measures.thumb.default(null),
  })
  .refine(
    ({ comfortableSpanMm, reachedSpanMm }) => reachedSpanMm === null || reachedSpanMm >= comfortableSpanMm,
    {
      path: ['reachedSpanMm'],
      error: 'The hand reaches less far than it lies at rest: measure both again, or swap them.',
    },
  )
  .meta({
    id: 'HandMeasurementDraft',
    examples: [{ measuredOn: '2026-11-28', comfortableSpanMm: 64, reachedSpanMm: 70 }],
  })
