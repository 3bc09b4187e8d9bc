import { rollup } from 'd3-array'
import { studioDay } from '../words/shown'

/** Of two points of one day, as far apart as a point is broad. */
export const BESIDE_PX = 7

/** Points of one studio day lie beside one another, in their order: each so many places right of where its day is drawn. */
export function besideOf(points: readonly { readonly at: Date }[]): number[] {
  const days = rollup(
    points,
    (own) => own.length,
    ({ at }) => studioDay(at),
  )
  const drawn = new Map<string, number>()
  return points.map(({ at }) => {
    const day = studioDay(at)
    const nth = drawn.get(day) ?? 0
    drawn.set(day, nth + 1)
    return nth - (days.get(day)! - 1) / 2
  })
}
