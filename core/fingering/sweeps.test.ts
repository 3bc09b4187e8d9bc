import { expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { keysOf } from '../key'
import { midiNumber } from '../pitch'
import { placementContext } from '../pattern'
import { isShifted } from '../technique'
import { alternativesFor, fingerScale, type FingeredNote } from './index'

/** What holds of every line there is, in every key. Too long to be run for each of a thousand mutants (vitest.mutants.config.ts). */
const contexts = Object.fromEntries(
  FAMILY_IDS.map((id) => [id, placementContext(familyOf(id), familyOf(id).tuning)]),
) as Record<FamilyId, ReturnType<typeof placementContext>>
const contextOf = (id: FamilyId) => contexts[id]
const places = (notes: readonly FingeredNote[]) => notes.map((n) => `${n.stringIndex}.${n.finger}`).join(' ')
const risen = (notes: readonly FingeredNote[]) => notes.slice(0, (notes.length + 1) / 2)
/** Up to the turn at the shorter one's top: its last two notes. */
const partsBefore = (shorter: readonly FingeredNote[], longer: readonly FingeredNote[]) =>
  shorter.slice(0, -2).some((n, i) => n.finger !== longer[i]!.finger)

it('no bass shifts to the top of an arpeggio by 1 or 2, and no major scale has a finger slide a step from 1 to 1 but those of E', () => {
  const found: string[] = []
  for (const id of FAMILY_IDS)
    for (const modeId of ['major', 'natural_minor'] as const)
      for (const one of keysOf(modeId))
        for (const figure of ['scale', 'arpeggio'] as const)
          for (const octaves of [1, 2, 3] as const) {
            const made = fingerScale(contextOf(id), { key: one, figure, octaves })
            if (!made.ok) continue
            const up = made.notes.slice(0, (made.notes.length + 1) / 2)
            up.slice(1).forEach((n, i) => {
              const before = up[i]!
              if (before.stringIndex !== n.stringIndex || !isShifted(before.hand, n.hand)) return
              const isTop = i === up.length - 2
              if (id === 'bass' && figure === 'arpeggio' && isTop && (n.finger === 1 || n.finger === 2))
                found.push(`${id} ${one.id} ${octaves}: top by ${n.finger}`)
              const isStep = modeId === 'major' && figure === 'scale' && before.finger === 1 && n.finger === 1
              if (isStep && one.id !== 'E:major') found.push(`${id} ${one.id} ${octaves}: 1 to 1`)
            })
          }
  expect([...new Set(found)]).toEqual([])
})

it('a scale has the fingers of the shorter one that begins on its note', () => {
  let compared = 0
  const parted: string[] = []
  for (const id of FAMILY_IDS)
    for (const modeId of ['major', 'natural_minor'] as const)
      for (const one of keysOf(modeId))
        for (const octaves of [2, 3] as const) {
          const [shorter, longer] = [octaves - 1, octaves].map((o) =>
            fingerScale(contextOf(id), { key: one, figure: 'scale', octaves: o as 1 | 2 | 3 }),
          )
          if (!shorter!.ok || !longer!.ok) continue
          if (midiNumber(shorter!.notes[0]!.note) !== midiNumber(longer!.notes[0]!.note)) continue
          compared++
          if (partsBefore(risen(shorter!.notes), risen(longer!.notes)))
            parted.push(`${id} ${one.id} ${octaves}`)
        }
  expect(parted).toEqual([])
  expect(compared).toBeGreaterThan(100)
})

it('other fingerings are two and more on every major line, all different, each for its own reason', () => {
  for (const id of FAMILY_IDS)
    for (const major of keysOf('major'))
      for (const figure of ['scale', 'arpeggio'] as const)
        for (const octaves of [1, 2, 3] as const) {
          const request = { key: major, figure, octaves }
          if (!fingerScale(contextOf(id), request).ok) continue
          const all = alternativesFor(contextOf(id), request)
          expect(all.length, `${id} ${major.id} ${figure} ${octaves}`).toBeGreaterThan(2)
          expect(new Set(all.map(({ notes }) => places(notes))).size).toBe(all.length)
        }
})
