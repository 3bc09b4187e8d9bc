import { mean } from 'd3-array'
import { isInOrder, type Evidence } from '../evidence'
import type { Kind } from './kind'

/** Fewer notes say nothing of a change with time. */
const LEAST_NOTES = 5

/** Sharper and sharper, or flatter and flatter, during the exercise. */
export function creep({ notes }: Evidence): Kind[] {
  if (notes.length < LEAST_NOTES || !isInOrder(notes)) return []
  const worth = mean(notes, (note) => note.centsPerMm)!
  return [
    {
      id: 'creep',
      isInTime: true,
      moves: ({ through }) => through,
      describe: (offsetMm, plusMinusMm) => ({
        code: 'creep',
        offsetMm,
        plusMinusMm,
        cents: offsetMm * worth,
      }),
    },
  ]
}
