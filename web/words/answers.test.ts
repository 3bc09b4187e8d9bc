import { expect, it } from 'vitest'
import { SETUP_ITEM_IDS } from '#core'
import { answerName } from './setup-names'

it('says of what hurts that it hurts, and of nothing the contrary of what was seen', () => {
  expect([answerName('pain', 'no'), answerName('pain', 'yes')]).toEqual(['hurts', 'nothing hurts'])
  expect(answerName('squeeze', 'no')).toBe('squeezing')
  expect(['yes', 'nearly', 'no'].map((one) => answerName('elbow', one as 'yes'))).toEqual([
    'right',
    'nearly',
    'not yet',
  ])
  // Three answers, three words, for every item: and no bare yes or no, which reads otherwise beside a name than beside a question.
  for (const id of SETUP_ITEM_IDS) {
    const names = (['yes', 'nearly', 'no'] as const).map((one) => answerName(id, one))
    expect(new Set(names).size, id).toBe(3)
    for (const name of names) expect(name).not.toMatch(/^(yes|no)$/i)
  }
})
