// A seeded part of `npm run bench:verdict`: what is told of known players, within bounds that a change of a deciding number breaks.
// What both players are: players.ts and bones.ts; the whole of it, beside its aims: docs/bench.md.
import { describe, expect, it } from 'vitest'
import { countBones, countEye, countFormula, together, type Counted } from './cells'

const TIME_MS = 240_000

const share = (n: number, of: number) => Math.round((1000 * n) / of) / 10
const seen = ({ all, told, right, doubted, later, sound, blamed, cleared, sizes }: Counted) => {
  const { count, held, ratio } = together([...sizes.values()])
  return {
    told: share(told, all),
    right: share(right, told),
    doubted: share(doubted, all),
    later: share(later, all),
    blamed: share(blamed, sound),
    cleared: share(cleared, sound),
    held: share(held, count),
    ratio: Math.round(100 * ratio) / 100,
  }
}

/** Where today's numbers are, %; the ratio of sizes in parts of the true one. A change that moves one on purpose writes it anew, with the bench. */
const near = (counted: Counted, wanted: Partial<ReturnType<typeof seen>>) => {
  const found = seen(counted)
  for (const [name, value] of Object.entries(wanted)) {
    const one = found[name as keyof typeof found]
    expect(Math.abs(one - value), `${name} ${one}, was ${value}`).toBeLessThanOrEqual(
      name === 'ratio' ? 0.02 : 0.7,
    )
  }
}

const CELL = { size: 15, scatter: 8, notes: 24, strings: 2 } as const

describe('of known players the verdict', () => {
  it.each([
    [
      'normal',
      CELL,
      20,
      { told: 65.6, right: 96.2, doubted: 10, blamed: 1, cleared: 71, held: 95, ratio: 0.96 },
    ],
    [
      'following',
      { ...CELL, notes: 40, strings: 4 },
      12,
      { told: 93.8, right: 94.4, doubted: 10.4, blamed: 3.3, cleared: 78.3, held: 89.4, ratio: 0.95 },
    ],
    [
      'normal',
      { ...CELL, size: 12, scatter: 12, notes: 16 },
      20,
      { told: 5.6, right: 55.6, blamed: 3, cleared: 2 },
    ],
    [
      't3',
      { ...CELL, scatter: 4, notes: 16 },
      12,
      { told: 100, right: 100, blamed: 0, cleared: 100, held: 96.9 },
    ],
  ] as const)(
    'with errors that are %s tells as many, and as many rightly, as it was counted to',
    (noise, cell, seeds, wanted) => near(countFormula(cell, noise, seeds), wanted),
    TIME_MS,
  )

  it(
    'of bones names what a teacher would, though nobody told it what bones do',
    () =>
      near(countBones({ ...CELL, notes: 40, strings: 4 }, 10), {
        told: 91.8,
        right: 93.1,
        blamed: 2,
        cleared: 72,
      }),
    TIME_MS,
  )

  it(
    'that are only seen says little, and that rightly',
    () =>
      near(countEye(35, 1.5, 32, 4, 6), {
        told: 72.2,
        right: 96.2,
        doubted: 22.2,
        later: 11.1,
        blamed: 0,
        held: 100,
        ratio: 1.1,
      }),
    TIME_MS,
  )
})
