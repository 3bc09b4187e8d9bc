import { daysBetween } from '../calendar'
import type { TapeDue } from '../tape'

/** Something that should happen in the next lesson, most pressing first when listed. */
export type Due =
  | { readonly code: 'no_instrument' }
  | { readonly code: 'measure_length' }
  | { readonly code: 'remeasure_length'; readonly days: number }
  | TapeDue
  | { readonly code: 'first_check' }
  | { readonly code: 'check_hand'; readonly days: number }

export interface StudentFacts {
  readonly hasInstrument: boolean
  /** ISO dates, `2026-11-28`; undefined where it never happened. */
  readonly measuredOn?: string | undefined
  /** What the tapes of the instrument ask for. */
  readonly tapes?: readonly TapeDue[]
  readonly checkedOn?: string | undefined
}

/** Bridges wander and children grow: measure again after half a year. Common practice, no source. */
export const REMEASURE_AFTER_DAYS = 182
/** A frame is moulded a little every week; its check can wait a month. Common practice, no source. */
export const CHECK_HAND_AFTER_DAYS = 28

/** What is due for a student on the day `today` (ISO date). */
export function dueOn(today: string, facts: StudentFacts): Due[] {
  if (!facts.hasInstrument) return [{ code: 'no_instrument' }]
  if (facts.measuredOn === undefined) return [{ code: 'measure_length' }]
  const due: Due[] = []
  const measured = daysBetween(facts.measuredOn, today)
  if (measured > REMEASURE_AFTER_DAYS) due.push({ code: 'remeasure_length', days: measured })
  due.push(...(facts.tapes ?? []))
  if (facts.checkedOn === undefined) due.push({ code: 'first_check' })
  else if (daysBetween(facts.checkedOn, today) > CHECK_HAND_AFTER_DAYS)
    due.push({ code: 'check_hand', days: daysBetween(facts.checkedOn, today) })
  return due
}
