import { notesOfShape, type Finger, type HandShape } from '../instrument'
import { centsAboveOpen, meterCents, type Note, type TuningSystem } from '../pitch'
import { placeOfCents } from '../stop'

/** Where one finger of a hand shape belongs on one string. */
export interface Target {
  readonly finger: Finger
  readonly note: Note
  /** Above the open string. */
  readonly cents: number
  /** From the nut, mm. */
  readonly placeMm: number
  /** What an equal-tempered meter shows when the finger is right, in cents. */
  readonly meterCents: number
}

/** The places of a hand shape on one open string of `lengthMm`, in finger order. */
export function handTargets(lengthMm: number, open: Note, shape: HandShape, system: TuningSystem): Target[] {
  return notesOfShape(open, shape).map(({ finger, note }) => {
    const cents = centsAboveOpen(system, open, note)
    return {
      finger,
      note,
      cents,
      placeMm: placeOfCents(lengthMm, cents),
      meterCents: meterCents(system, note),
    }
  })
}
