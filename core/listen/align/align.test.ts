import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { align, ALIGNMENT_COSTS, type Match } from './align'

const scale = [0, 200, 400, 500, 700, 900, 1100, 1200, 1400, 1600]
const written = scale.map((cents) => ({ cents }))
const heard = (...cents: number[]) => cents.map((c) => ({ cents: c }))
const play = (...cents: number[]) => align(heard(...cents), written)
/** `0` the next note 0, `3r` note 3 once more, `0b` after a jump back, `4!` another note in its stead, `x` extra, `2^1` an octave up. */
const told = (matches: readonly Match[]) =>
  matches
    .map((m) => {
      if (m.kind === 'extra') return 'x'
      const how = { next: '', repeated: 'r', restarted: 'b' }[m.how]
      return `${m.index}${how}${m.isWrong ? '!' : ''}${m.octaves === 0 ? '' : `^${m.octaves}`}`
    })
    .join(' ')

describe('an alignment', () => {
  it('of a take as written finds each note, however badly aimed', () => {
    expect(told(play(...scale.map((c, i) => c + (i % 2 ? -28 : 31))).matches)).toBe('0 1 2 3 4 5 6 7 8 9')
  })

  it.each([
    ['an extra note', [0, 200, 650, 400, 500, 700], '0 1 x 2 3 4', []],
    ['a note left out', [0, 200, 500, 700, 900], '0 1 3 4 5', [2]],
    ['a note played twice', [0, 200, 200, 400, 500], '0 1 1r 2 3', []],
    ['another note in its stead', [0, 200, 310, 500, 700], '0 1 2! 3 4', []],
    ['a restart in the middle', [0, 200, 400, 500, 0, 200, 400, 500, 700], '0 1 2 3 0b 1 2 3 4', []],
    ['a step back of two notes', [0, 200, 400, 500, 700, 400, 500, 700, 900], '0 1 2 3 4 2b 3 4 5', []],
    ['a late begin', [500, 700, 900, 1100, 1200, 1400, 1600], '3 4 5 6 7 8 9', []],
    ['a stop before the end', [0, 200, 400], '0 1 2', []],
    ['everything an octave up', scale.map((c) => c + 1200), scale.map((_, i) => `${i}^1`).join(' '), []],
  ] as const)('hears %s as such', (_, cents, expected, missing) => {
    const alignment = play(...cents)
    expect(told(alignment.matches)).toBe(expected)
    expect(alignment.missing).toEqual(missing)
  })

  it('says which part of the exercise was played', () => {
    expect(play(500, 700, 900)).toMatchObject({ from: 3, to: 6 })
    expect(play()).toMatchObject({ from: 0, to: 0, missing: [], matches: [] })
    expect(told(align(heard(100, 200), []).matches)).toBe('x x')
  })

  it('costs what the whole table costs, and its path costs what it says', () => {
    const cents = fc.integer({ min: -3, max: 30 }).map((n) => n * 50)
    const lines = fc.tuple(
      fc.array(cents, { maxLength: 14 }),
      fc.array(cents, { minLength: 1, maxLength: 9 }),
    )
    fc.assert(
      // One row kept: the path is found by halves down to single notes. Many: it is read back from the whole table.
      fc.property(lines, fc.constantFrom(1, 3, 1024), ([played, meant], rowsKept) => {
        const sounds = heard(...played)
        const targets = meant.map((c) => ({ cents: c }))
        const { cost, matches } = align(sounds, targets, {}, rowsKept)
        expect(cost).toBeCloseTo(leastCost(played, meant), 9)
        expect(pathCost(played, meant, matches)).toBeCloseTo(cost, 9)
      }),
      { numRuns: 300, seed: 13 },
    )
  })
})

const { missing, extra, repeated, restarted, late, wrong, wrongCents, octave } = ALIGNMENT_COSTS

function matchCost(played: number, meant: number): number {
  const octaves = Math.round((played - meant) / 1200)
  const left = (played - meant - 1200 * octaves) / wrongCents
  return Math.min(wrong, left ** 2 / 2) + (octaves === 0 ? 0 : octave)
}

/** What it costs to come from note `from` (−1: none yet) to note `to`. */
function moveCost(from: number, to: number): number {
  if (from === -1) return to === 0 ? 0 : Math.min(late, to * 1e9)
  if (to > from) return (to - from - 1) * missing
  return to === from ? repeated : restarted
}

/** The definition: every state after every note, in one table. */
function leastCost(played: readonly number[], meant: readonly number[]): number {
  let row = [0, ...meant.map(() => Infinity)]
  for (const sound of played)
    row = row.map((stay, state) => {
      const meantHere = state === 0 ? [] : row.map((cost, from) => cost + moveCost(from - 1, state - 1))
      const match = state === 0 ? Infinity : matchCost(sound, meant[state - 1]!)
      return Math.min(stay + extra, Math.min(...meantHere, Infinity) + match)
    })
  const whole = row.map((cost, state) => cost + (state === 0 || state === meant.length ? 0 : late))
  return played.length === 0 ? 0 : Math.min(...whole)
}

function pathCost(played: readonly number[], meant: readonly number[], matches: readonly Match[]): number {
  let [sum, last] = [0, -1]
  matches.forEach((match, i) => {
    if (match.kind === 'extra') sum += extra
    else {
      sum += moveCost(last, match.index) + matchCost(played[i]!, meant[match.index]!)
      last = match.index
    }
  })
  return sum + (last === -1 || last === meant.length - 1 ? 0 : late)
}
