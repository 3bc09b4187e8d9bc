import { describe, expect, it } from 'vitest'
import {
  FAMILY_IDS,
  familyOf,
  judgeTake,
  landingAtCents,
  mannerOf,
  perform,
  seededSource,
  playedNotes,
  typicalLengthMm,
} from '#core'
import { shaped, strung } from '../../../core/testing'
import { faultsOf, SIMULATED_FAULTS, SURPRISE } from './simulated'

describe('a simulated student', () => {
  const SIZES = FAMILY_IDS.flatMap((id) =>
    [familyOf(id).sizes[0]!, familyOf(id).sizes.at(-1)!].map(({ id: size }) => [id, size] as const),
  )

  it.each(SIZES)('of a %s %s has faults that are heard on it, and a good hand that is', (family, size) => {
    const lengthMm = typicalLengthMm(familyOf(family), size)
    const stringing = strung(family, lengthMm)
    const exercise = shaped(family, 1)
    for (const { id } of SIMULATED_FAULTS) {
      const faults = { ...faultsOf(id, lengthMm, Math.random), scatterCents: 0 }
      const line = { ...exercise, notes: playedNotes(exercise) }
      const { notes } = perform(seededSource(3), stringing, line, mannerOf('trained', faults))
      const landings = notes.map((note) =>
        landingAtCents(stringing, note, note.landingCents, {
          sigmaCents: 1,
          atMs: null,
          source: 'simulated',
        }),
      )
      // A trained player's tolerance (common practice, no source).
      const { outcome } = judgeTake({ stringing, exercise, landings, toleranceCents: 10 })
      if (id === 'none') expect(outcome, id).toBe('in_tune')
      else if (id === 'untuned') expect(outcome, id).toBe('string_out_of_tune')
      else expect(['explained', 'several'], id).toContain(outcome)
    }
  })

  it('may surprise, with any of them', () => {
    const source = seededSource(9)
    const seen = new Set(Array.from({ length: 200 }, () => JSON.stringify(faultsOf(SURPRISE, 328, source))))
    expect(seen.size).toBe(SIMULATED_FAULTS.length)
  })
})
