import { dayOf, type HandFault, type HandFit, type SpanDoubt, type WhenFits } from '#core'
import { shortDay } from './dates'
import { inStudioUnit, length } from './numbers'

export const FIT_NAMES: Record<HandFit, string> = {
  comfortable: 'Comfortable',
  reach_back: 'Reach back with 1',
  thumb_or_pivot: 'Thumb forward, or pivot',
  too_big: 'Too big',
}

export const FIT_SIGNS: Record<HandFit, string> = {
  comfortable: '●',
  reach_back: '◐',
  thumb_or_pivot: '○',
  too_big: '✕',
}

const FIT_ADVICE: Record<HandFit, string> = {
  comfortable: 'The hand at rest spans the frame.',
  reach_back: 'Set the hand for 4 and reach back with 1: the stretch a hand bears best.',
  thumb_or_pivot:
    'Bring the thumb further forward, or let the hand pivot and return; do not hold the spread.',
  too_big: 'Take a smaller size.',
}

export function fitSentence(fit: HandFit): string {
  return FIT_ADVICE[fit]
}

const MEASURE_NAMES = {
  span: 'A span from 1 to 4',
  fingerLength: 'A finger',
  fingertipWidth: 'A fingertip',
} as const

export function handFaultSentence(fault: HandFault): string {
  if (fault.code === 'reach_below_comfort')
    return `Spread, the hand reaches ${length(fault.reachedMm)}, less than the ${length(fault.comfortableMm)} at rest: measure both again, or swap them.`
  const [least, most] = fault.limitsMm
  const likely = fault.likely
    ? ` Were these ${fault.likely.unit === 'cm' ? 'centimetres' : 'inches'}? Then it is ${length(fault.likely.valueMm)}.`
    : ''
  return `${MEASURE_NAMES[fault.measure]} of ${length(fault.valueMm)} is no hand’s: ${inStudioUnit(`${least} to ${most} mm`)}.${likely}`
}

/** Why a span is measured once more. */
export function spanDoubtSentence({ code, lastMm, lastDay }: SpanDoubt): string {
  const last = `${length(lastMm)} on ${shortDay(dayOf(lastDay))}`
  return {
    shrunk: `It was ${last}, and a hand does not shrink. Measure once more.`,
    shot_up: `It was ${last}, and no hand grows so fast. Measure once more.`,
    alone: `It was ${last}, and this fits with none of the others. Measure once more.`,
  }[code]
}

/** When a size will probably fit, in a sentence; `dayOf` turns the core's day count into an ISO day. */
export function whenSentence(
  when: WhenFits,
  size: string,
  dayOf: (day: number) => string,
  today: number,
): string {
  switch (when.outcome) {
    case 'now':
      return `The ${size} fits now.`
    case 'not_growing':
      return `The hand does not grow measurably: no day for the ${size} can be told.`
    case 'too_early':
      return `Too early to name a day for the ${size}: the measurements leave the growth too open. Measure again in some months.`
    case 'far_off':
      return `The ${size} is more than three years off.`
    case 'on': {
      const earliest = when.earliestDay <= today ? 'now' : shortDay(dayOf(when.earliestDay))
      return `The ${size} will probably fit about ${shortDay(dayOf(when.day))} (four times in five between ${earliest} and ${shortDay(dayOf(when.latestDay))}).`
    }
  }
}
