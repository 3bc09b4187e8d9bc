import type { Call } from '../http/call'

/** The studio as it was at an instant: everything is saved the way a teacher saves it. */
export type CallAt = (at: Date) => Pick<Call, 'store' | 'now' | 'signedIn'>
/** The Saturday so many weeks before the last one. */
export type WeeksAgo = (weeks: number) => Date

/** The seed of a student’s own chance. */
export function seedOf(name: string): number {
  return [...name].reduce((sum, letter) => (31 * sum + letter.codePointAt(0)!) % 1_000_003, 7)
}

export function dayOf(date: Date): string {
  return date.toISOString().slice(0, 10)
}
