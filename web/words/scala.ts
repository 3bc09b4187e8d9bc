import type { ScalaFault } from '#core'

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
    case 'scala_too_few':
      return `Line ${fault.line}: the file says ${fault.said} notes and has ${fault.found}.`
    case 'scala_too_many':
      return `Line ${fault.line}: the file says ${fault.said} notes and has more.`
  }
}
