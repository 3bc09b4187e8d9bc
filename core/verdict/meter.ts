import type { Finger, HandShape } from '../instrument'
import { meterCents, type Note, type TuningSystem } from '../pitch'
import { handTargets } from '../tape'
import type { HandCheck } from './types'

/** One note as an equal-tempered meter showed it, against the note expected. Finger 0 is the open string. */
export interface MeterReading {
  readonly finger: Finger | 0
  readonly shownCents: number
}

export interface MeterCheck {
  readonly lengthMm: number
  readonly open: Note
  readonly shape: HandShape
  readonly system: TuningSystem
  readonly shown: readonly MeterReading[]
  readonly toleranceCents: number
}

/**
 * A hand to judge from what a meter showed. A meter measures against equal temperament; the hand is judged against its
 * own tuning system, so what the meter should have shown is taken off first: a ringing E on a violin's D string shows +2.
 * Throws a RangeError for a finger that stops nothing in the shape.
 */
export function checkFromMeter({
  lengthMm,
  open,
  shape,
  system,
  shown,
  toleranceCents,
}: MeterCheck): HandCheck {
  const targets = handTargets(lengthMm, open, shape, system)
  const openShows = meterCents(system, open, 'open')
  const readings = shown.map(({ finger, shownCents }) => {
    if (finger === 0) return { finger, cents: shownCents - openShows }
    const target = targets.find((t) => t.finger === finger)
    if (!target) throw new RangeError(`finger ${finger} stops nothing in ${shape.id}`)
    return { finger, cents: shownCents - target.meterCents }
  })
  return { lengthMm, targets, readings, toleranceCents }
}
