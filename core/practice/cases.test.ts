import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, typicalLengthMm } from '../instrument'
import { strung } from '../testing'
import { casesFor, hiddenCasesFor, playCase } from './index'

const PLAYERS = FAMILY_IDS.flatMap((familyId) => casesFor(familyId).map((id) => [familyId, id] as const))
const on = (familyId: (typeof FAMILY_IDS)[number]) =>
  strung(familyId, typicalLengthMm(familyOf(familyId), familyOf(familyId).sizes[0]!.id))

describe('a case of the trade', () => {
  it.each(PLAYERS)('on a %s is named as it is played: %s', (familyId, id) => {
    const played = [1, 2, 3, 4, 5].map((seed) => playCase(id, 40 + seed, on(familyId)))
    // A trained player who scatters is understood nearly always; one of five may ask for more notes.
    expect(
      played.filter(({ isNamed }) => isNamed).length,
      JSON.stringify(played.map(({ verdict }) => verdict.outcome)),
    ).toBeGreaterThanOrEqual(4)
  })

  it('is the same with the same seed, and another with another', () => {
    const cents = (seed: number) => playCase('well', seed, on('violin')).take.landings.map((l) => l.cents)
    expect(cents(5)).toEqual(cents(5))
    expect(cents(5)).not.toEqual(cents(6))
  })

  it('that is hidden from a teacher can be seen in the hand, and is of the family', () => {
    for (const familyId of FAMILY_IDS) {
      const hidden = hiddenCasesFor(familyId)
      expect(hidden).not.toContain('untuned')
      expect(hidden.includes('locked_thumb')).toBe(familyId === 'cello')
      expect(casesFor(familyId)).toEqual(expect.arrayContaining(hidden))
    }
  })
})
