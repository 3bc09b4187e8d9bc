import type { FamilyId, Schools, SetupItemId } from '#core'
import { inStudioUnit } from '../numbers'
import { BASS_WORDS } from './bass'
import { CELLO_WORDS } from './cello'
import { EVERY_WORDS } from './every'
import type { ItemWords, WordsOfItem } from './types'
import { VIOLIN_WORDS } from './violin'

export { cautionOf, GENTLY } from './cautions'
export { PAIN_CAUTION } from '../pain'
export { FIGURE_WORDS } from './drawings'
export { measuredWords } from './measured'
export { SYMPTOM_WORDS } from './symptoms'
export type { ItemWords } from './types'

const WORDS: Record<SetupItemId, WordsOfItem> = {
  ...EVERY_WORDS,
  ...VIOLIN_WORDS,
  ...CELLO_WORDS,
  ...BASS_WORDS,
}

/** What is asked and told of an item in a school. */
export function itemWords(itemId: SetupItemId, schools: Schools, family: FamilyId): ItemWords {
  const words = WORDS[itemId]
  const said = typeof words === 'function' ? words(schools, family) : words
  const inUnit = (field: keyof ItemWords) => inStudioUnit(said[field])
  return {
    question: inUnit('question'),
    right: inUnit('right'),
    wrong: inUnit('wrong'),
    reason: inUnit('reason'),
    change: inUnit('change'),
    test: inUnit('test'),
  }
}
