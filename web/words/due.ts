import type { Due } from '#core'
import { count, length } from './numbers'
import { setupName } from './setup-names'

/** What is due, in a few words. */
export function dueWords(due: Due): string {
  switch (due.code) {
    case 'pain':
      return `pain: ${due.place}`
    case 'long_nearly':
      return `${setupName(due.itemId)} nearly for ${weeks(due.days)}${due.others > 0 ? `, and ${due.others} more` : ''}`
    case 'no_instrument':
      return 'needs an instrument'
    case 'measure_length':
      return 'measure the string'
    case 'remeasure_length':
      return `length ${weeks(due.days)} old`
    case 'check_tapes':
      return due.isEvery
        ? `tapes last seen ${weeks(due.days)} ago`
        : `one tape not seen for ${weeks(due.days)}`
    case 'tape_crept':
      return `a tape has crept ${length(Math.abs(due.byMm))}`
    case 'try_without':
      return `try without tapes, ${weeks(due.days)} on`
    case 'remeasure_after_bridge':
      return 'measure again: bridge changed'
    case 'first_check':
      return 'first check'
    case 'check_hand':
      return `last check ${weeks(due.days)} ago`
  }
}

function weeks(days: number): string {
  return count(Math.round(days / 7), 'week')
}
