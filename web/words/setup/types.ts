import type { FamilyId, Schools, SetupItemId } from '#core'

/** What a teacher is asked of one item, and told when it is not right. */
export interface ItemWords {
  readonly question: string
  readonly right: string
  readonly wrong: string
  readonly reason: string
  readonly change: string
  readonly test: string
}

/** Words of an item, or how they follow from the student’s school. */
export type WordsOfItem = ItemWords | ((schools: Schools, family: FamilyId) => ItemWords)
export type SomeItemWords = Partial<Record<SetupItemId, WordsOfItem>>
