/** Something that should happen in the next lesson, most pressing first when listed. */
export type Due =
  | { readonly code: 'no_instrument' }
  | { readonly code: 'measure_length' }
  | { readonly code: 'remeasure_length'; readonly days: number }
  | { readonly code: 'check_tapes'; readonly days: number }
  | { readonly code: 'first_check' }
  | { readonly code: 'check_hand'; readonly days: number }

export interface StudentFacts {
  readonly hasInstrument: boolean
  /** ISO dates, `2026-11-28`; undefined where it never happened. */
  readonly measuredOn?: string | undefined
  readonly tapesLaidOn?: string | undefined
  readonly checkedOn?: string | undefined
}

/** Bridges wander and children grow: measure again after half a year. Common practice, no source. */
export const REMEASURE_AFTER_DAYS = 182
/** Warm hands make tapes creep. Common practice, no source. */
export const CHECK_TAPES_AFTER_DAYS = 56
/** A frame is moulded a little every week; its check can wait a month. Common practice, no source. */
export const CHECK_HAND_AFTER_DAYS = 28

/** What is due for a student on the day `today` (ISO date). */
export function dueOn(today: string, facts: StudentFacts): Due[] {
  if (!facts.hasInstrument) return [{ code: 'no_instrument' }]
  if (facts.measuredOn === undefined) return [{ code: 'measure_length' }]
  const due: Due[] = []
  const measured = daysBetween(facts.measuredOn, today)
  if (measured > REMEASURE_AFTER_DAYS) due.push({ code: 'remeasure_length', days: measured })
  const laid = facts.tapesLaidOn === undefined ? 0 : daysBetween(facts.tapesLaidOn, today)
  if (laid > CHECK_TAPES_AFTER_DAYS) due.push({ code: 'check_tapes', days: laid })
  if (facts.checkedOn === undefined) due.push({ code: 'first_check' })
  else if (daysBetween(facts.checkedOn, today) > CHECK_HAND_AFTER_DAYS)
    due.push({ code: 'check_hand', days: daysBetween(facts.checkedOn, today) })
  return due
}

function daysBetween(earlier: string, later: string): number {
  return Math.round((Date.parse(later) - Date.parse(earlier)) / 86_400_000)
}
