import { group, mean, variance } from 'd3-array'
import { noteName } from '../pitch'
import { studentsT } from '../stats'
import { isStray, type Evidence } from './evidence'
import type { Finding, Stray } from './types'

/** Two that happen to agree are known no better than this, cents, one standard deviation. */
const LEAST_SCATTER_CENTS = 3

type Place = Extract<Finding, { readonly code: 'place' }>

/**
 * What lies apart from the rest of the hand: notes that are off every time they are played, each a finding of its own (one finger
 * on one string, or one note of a line), the furthest first; and strays, which are left out and said.
 */
export function apartOf({ notes, apart, stringing }: Evidence): {
  readonly places: readonly Place[]
  readonly strays: readonly Stray[]
} {
  const stringOf = (index: number) => noteName(stringing.tuning[index]!)
  const strays = notes.flatMap((note): Stray[] => {
    const { finger, stringIndex } = note.target
    if (!isStray(note) || apart.has(note.target)) return []
    return [{ finger, string: stringOf(stringIndex), cents: note.cents }]
  })
  const places = [...group(notes, ({ target }) => target)].flatMap(([target, own]): Place[] => {
    if (!apart.has(target)) return []
    const scatter = Math.max(LEAST_SCATTER_CENTS, Math.sqrt(variance(own, ({ cents }) => cents) ?? 0))
    return [
      {
        code: 'place',
        finger: target.finger,
        string: stringOf(target.stringIndex),
        note: noteName(target.note),
        cents: mean(own, ({ cents }) => cents)!,
        plusMinusCents: (studentsT(0.975, own.length - 1) * scatter) / Math.sqrt(own.length),
        count: own.length,
      },
    ]
  })
  return { places: places.sort((a, b) => Math.abs(b.cents) - Math.abs(a.cents)), strays }
}
