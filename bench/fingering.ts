import {
  FAMILY_IDS,
  familyOf,
  fingerScale,
  keysOf,
  midiNumber,
  optionsFor,
  placementContext,
  type FigureId,
  type FingerOption,
  type Note,
  type PlacementContext,
} from '#core'
import { ratioOf, type Ratio } from './ratio'

/** Every third signature: the whole line of fifths in a third of the time. */
const keys = [...keysOf('major'), ...keysOf('melodic_minor')].filter((_, i) => i % 3 === 0)

/**
 * All scales and arpeggios of a family, one to three octaves, up and down, against the same dynamic program without efforts:
 * the same ways through the same notes, up and where it is another line down as well, every step from one note to the next
 * at the same price.
 */
export function fingeringAgainstBare(): Ratio[] {
  return FAMILY_IDS.map((id) => {
    const family = familyOf(id)
    const context = placementContext(family, family.tuning)
    const lines = keys.flatMap((key) =>
      (['scale', 'arpeggio'] satisfies FigureId[]).flatMap((figure) =>
        ([1, 2, 3] as const).flatMap((octaves) => {
          const request = { key, figure, octaves }
          const made = fingerScale(context, request)
          if (!made.ok) return []
          const notes = made.notes.map(({ note }) => note)
          const top = (notes.length - 1) / 2
          const down = notes.slice(top).reverse()
          const up = notes.slice(0, top + 1)
          const isOther = down.some((n, i) => midiNumber(n) !== midiNumber(up[i]!))
          return [{ request, lines: isOther ? [up, down] : [up] }]
        }),
      ),
    )
    const ours = () => lines.reduce((sum, { request }) => sum + (fingerScale(context, request).ok ? 1 : 0), 0)
    const bare = () =>
      lines.reduce((sum, one) => sum + (one.lines.every((n) => cheapest(context, n) < Infinity) ? 1 : 0), 0)
    if (ours() !== bare()) throw new Error(`the two sides finger different lines of the ${id}`)
    return ratioOf(
      `${lines.length} scales of the ${id} fingered / the same program without efforts`,
      ours,
      bare,
      6,
    )
  })
}

interface State {
  readonly way: FingerOption
  readonly sum: number
  readonly before: State | undefined
}

function cheapest(context: PlacementContext, line: readonly Note[]): number {
  let layer: State[] = []
  for (const [index, note] of line.entries()) {
    const next: State[] = []
    for (const way of optionsFor(context, note)) {
      if (index === 0) {
        next.push({ way, sum: 0, before: undefined })
        continue
      }
      // An open string is played in each hand there was, as in the program itself.
      const best = new Map<string, State>()
      for (const before of layer) {
        const hand = way.hand ?? before.way.hand
        const id = way.hand ? '' : `${hand?.anchor} ${hand?.holdId}`
        const sum = before.sum + 1
        const known = best.get(id)
        if (!known || sum < known.sum) best.set(id, { way: { ...way, hand }, sum, before })
      }
      next.push(...best.values())
    }
    layer = next
  }
  return Math.min(...layer.map(({ sum }) => sum))
}
