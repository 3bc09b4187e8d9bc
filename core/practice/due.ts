import { daysBetween } from '../calendar'
import { longNearly, type ItemStanding } from '../setup'
import type { TapeDue } from '../tape'

/** Something that should happen in the next lesson, most pressing first when listed. */
export type Due =
  /** Told and not cleared: nothing else is asked for before it is. */
  | { readonly code: 'pain'; readonly place: string; readonly toldOn: string }
  | { readonly code: 'no_instrument' }
  | { readonly code: 'measure_length' }
  | { readonly code: 'remeasure_length'; readonly days: number }
  | TapeDue
  | { readonly code: 'first_check' }
  | { readonly code: 'check_hand'; readonly days: number }
  /** An item of the setup that has been nearly right for so long, and how many more there are. */
  | { readonly code: 'long_nearly'; readonly itemId: string; readonly days: number; readonly others: number }

export interface StudentFacts {
  readonly hasInstrument: boolean
  /** ISO dates, `2026-11-28`; undefined where it never happened. */
  readonly measuredOn?: string | undefined
  /** What the tapes of the instrument ask for. */
  readonly tapes?: readonly TapeDue[]
  readonly checkedOn?: string | undefined
  readonly pains?: readonly { readonly place: string; readonly toldOn: string }[]
  readonly setup?: readonly ItemStanding[]
}

/** After how many days something is looked at again; a studio may say otherwise. */
export interface Intervals {
  readonly remeasureDays: number
  readonly checkHandDays: number
}

/** Bridges wander and children grow: measure again after half a year. Common practice, no source. */
export const REMEASURE_AFTER_DAYS = 182
/** A frame is moulded a little every week; its check can wait a month. Common practice, no source. */
export const CHECK_HAND_AFTER_DAYS = 28

export const USUAL_INTERVALS: Intervals = {
  remeasureDays: REMEASURE_AFTER_DAYS,
  checkHandDays: CHECK_HAND_AFTER_DAYS,
}

/** What is due for a student on the day `today` (ISO date). */
export function dueOn(today: string, facts: StudentFacts, intervals: Intervals = USUAL_INTERVALS): Due[] {
  const pains = (facts.pains ?? []).map(({ place, toldOn }) => ({ code: 'pain' as const, place, toldOn }))
  return [...pains, ...ofInstrument(today, facts, intervals), ...ofSetup(today, facts)]
}

function ofInstrument(today: string, facts: StudentFacts, intervals: Intervals): Due[] {
  if (!facts.hasInstrument) return [{ code: 'no_instrument' }]
  if (facts.measuredOn === undefined) return [{ code: 'measure_length' }]
  const due: Due[] = []
  const measured = daysBetween(facts.measuredOn, today)
  if (measured > intervals.remeasureDays) due.push({ code: 'remeasure_length', days: measured })
  due.push(...(facts.tapes ?? []))
  if (facts.checkedOn === undefined) due.push({ code: 'first_check' })
  else if (daysBetween(facts.checkedOn, today) > intervals.checkHandDays)
    due.push({ code: 'check_hand', days: daysBetween(facts.checkedOn, today) })
  return due
}

function ofSetup(today: string, { setup = [] }: StudentFacts): Due[] {
  const [longest, ...others] = longNearly(today, setup)
  if (!longest) return []
  const { itemId, since } = longest
  return [{ code: 'long_nearly', itemId, days: daysBetween(since, today), others: others.length }]
}
