import {
  checkFromMeter,
  familyOf,
  judgeHand,
  parseNote,
  shapeOf,
  tuningSystem,
  type FamilyId,
  type Finger,
} from '#core'
import type { Check } from '#contracts'

/** The mean landing of each finger in a kept check, in cents off its place. */
export function landingsOf(check: Check, family: FamilyId): { finger: Finger; cents: number }[] {
  const shape = shapeOf(familyOf(family), check.shapeId)
  const open = parseNote(check.string)
  const system = tuningSystem(check.system)
  if (!shape || !open || !system) return []
  const { lengthMm, toleranceCents, readings: shown } = check
  const verdict = judgeHand(checkFromMeter({ lengthMm, open, shape, system, shown, toleranceCents }))
  return verdict.fingers.map(({ finger, meanCents }) => ({ finger, cents: meanCents }))
}
