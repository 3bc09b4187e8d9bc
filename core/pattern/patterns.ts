import type { Family } from '../instrument'
import { techniqueOf, type Pattern } from '../technique'

/** All patterns of a family's frames with at least two fingers, those of the frame at rest first. */
export function patternsOf(family: Family): readonly Pattern[] {
  return techniqueOf(family.id).patterns(family)
}

/** The pattern with this id, if it is one of the family's. */
export function patternWithId(family: Family, id: string): Pattern | undefined {
  return patternsOf(family).find((pattern) => pattern.id === id)
}
