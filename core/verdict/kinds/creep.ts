import { mean } from 'd3-array'
import type { Evidence } from '../evidence'
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

/**
 * Whether it is known which note came when: by its time, or since they stand as they were played. What is typed finger by finger,
 * several readings to each, is in the order of the sheet.
 */
function isInOrder(notes: Evidence['notes']): boolean {
  if (notes.every(({ landing }) => landing.atMs !== null)) return true
  const places = notes.map(
    ({ target: { stringIndex, finger, placeMm } }) => `${stringIndex} ${finger} ${placeMm}`,
  )
  const blocks = places.filter((place, i) => place !== places[i - 1]).length
  return places.length === blocks || new Set(places).size < blocks
}
