import type { Family } from '../instrument'
import { patternWithId } from './patterns'

/** What a student can have mastered. */
export const MASTERY_KINDS = ['pattern', 'position'] as const
export type MasteryKind = (typeof MASTERY_KINDS)[number]

/** From nothing yet to whenever it is asked for. */
export const MASTERY_STATES = ['not_met', 'learning', 'secure'] as const
export type MasteryState = (typeof MASTERY_STATES)[number]

/** Whether a family has this pattern or position. */
export function hasMasteryItem(family: Family, kind: MasteryKind, item: string): boolean {
  return kind === 'pattern'
    ? patternWithId(family, item) !== undefined
    : family.positions.some((position) => position.id === item)
}
