import type { ScalaFault, ScalaQuestion } from '#core'

/** What is wrong with a Scala file, on which line, and what to do. */
export function scalaFaultWords(fault: ScalaFault): string {
  switch (fault.code) {
    case 'scala_too_large':
      return `This file is no scale: it has more than ${fault.limit.toLocaleString('en-GB')} characters.`
    case 'scala_no_description':
      return `Line ${fault.line}: the file ends before its description. A .scl file begins with a line that names the scale.`
    case 'scala_no_count':
      return `Line ${fault.line}: the file ends before the number of notes.`
    case 'scala_bad_count':
      return `Line ${fault.line}: “${fault.text}” should be the number of notes, as in 12.`
    case 'scala_bad_pitch':
      return `Line ${fault.line}: “${fault.text}” is no pitch. Write cents with a point, as in 386.31, or a ratio, as in 5/4.`
    case 'scala_negative_ratio':
      return `Line ${fault.line}: “${fault.text}”: a ratio is never negative.`
    case 'scala_out_of_reach':
      return `Line ${fault.line}: “${fault.text}” is beyond what can be heard or reckoned. Write the pitch in cents, with a point.`
    case 'scala_too_few':
      return `Line ${fault.line}: the file says ${fault.said} notes and has ${fault.found}.`
    case 'scala_too_many':
      return `Line ${fault.line}: the file says ${fault.said} notes and has more.`
  }
}

/** What was read otherwise than it was probably meant. */
export function scalaQuestionWords({ code, line, text }: ScalaQuestion): string {
  return code === 'scala_spaced_ratio'
    ? `Line ${line}: “${text}” was read up to the blank, as a whole number. A ratio has none: 5/4.`
    : `Line ${line}: “${text}” was read as a ratio, ${text} to 1. If it is in cents, write it with a point: ${text}.0`
}
