import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { FAMILY_IDS, familyOf, type FamilyId } from '../instrument'
import { keyOf, noteInKey } from '../key'
import { midiNumber, note, type Note } from '../pitch'
import { placementContext } from '../pattern'
import { techniqueOf, type FingerOption, type HandPlace } from '../technique'
import { DEFAULT_FINGERING, fingerNotes, optionsFor } from './index'

const contextOf = (id: FamilyId) => placementContext(familyOf(id), familyOf(id).tuning)

/** Every way through every note, left off only where it costs more already than a way that was gone to its end. */
function exhaustive(id: FamilyId, line: readonly Note[]): number {
  const context = contextOf(id)
  const efforts = techniqueOf(id).efforts(context, DEFAULT_FINGERING)
  const ways = line.map((n) => optionsFor(context, n))
  let least = Infinity
  const go = (index: number, from: FingerOption | undefined, hand: HandPlace | undefined, sum: number) => {
    if (sum >= least) return
    if (index === line.length) return void (least = sum)
    const rise = index === 0 ? 0 : midiNumber(line[index]!) - midiNumber(line[index - 1]!)
    const next = ways[index]!.map((way) => ({
      way,
      cost: efforts.own(way) + (from ? efforts.move(from, hand, way, rise) : 0),
    })).sort((a, b) => a.cost - b.cost)
    for (const { way, cost } of next) go(index + 1, way, way.hand ?? hand, sum + cost)
  }
  go(0, undefined, undefined, 0)
  return least
}

const chromatic = keyOf(note('C4'), 'chromatic')
/** From three to eight notes within two octaves of the lowest string, by steps and leaps. */
const lineOn = (id: FamilyId) => {
  const lowest = midiNumber(familyOf(id).tuning[0]!)
  return fc
    .array(fc.integer({ min: 0, max: 26 }), { minLength: 3, maxLength: 8 })
    .map((steps) => steps.map((by) => noteInKey(chromatic, lowest + by)!))
}

describe('the least effort', () => {
  it.each(FAMILY_IDS)('of a %s is found: no way through a line of up to eight notes costs less', (id) => {
    fc.assert(
      fc.property(lineOn(id), (line) => {
        const found = fingerNotes(contextOf(id), line)
        expect(found.ok && found.effort).toBeCloseTo(exhaustive(id, line), 9)
      }),
      { numRuns: 12, seed: 16 },
    )
  })

  it('is never negative: what costs more already can be left off', () => {
    fc.assert(
      fc.property(fc.constantFrom(...FAMILY_IDS), fc.nat(40), fc.nat(40), (id, a, b) => {
        const context = contextOf(id)
        const lowest = midiNumber(context.tuning[0]!)
        const efforts = techniqueOf(id).efforts(context, DEFAULT_FINGERING)
        const [from, to] = [a, b].map((by) => optionsFor(context, noteInKey(chromatic, lowest + by)!))
        const costs = from!.flatMap((x) => to!.map((y) => efforts.move(x, x.hand, y, b - a)))
        expect(Math.min(0, ...costs, ...to!.map((y) => efforts.own(y)))).toBe(0)
      }),
      { numRuns: 60, seed: 16 },
    )
  })
})
