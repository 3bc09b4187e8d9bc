import type { Evidence } from '../evidence'
import type { Kind } from './kind'

/** All fingers off by the same distance: the hand has crept up or sits low. Of several positions also in one of them alone. */
export function wholeHand({ notes, opens }: Evidence): Kind[] {
  const positions = [...new Set(notes.map(({ target }) => target.positionId))]
  const openStringHeard = notes.every(({ target }) => opens.some((o) => o.stringIndex === target.stringIndex))
  const of = (positionId?: string | null): Kind => ({
    id: positionId === undefined ? 'whole_hand' : `whole_hand ${positionId}`,
    moves: ({ target }) => (positionId === undefined || target.positionId === positionId ? 1 : 0),
    describe: (offsetMm, plusMinusMm) => ({
      code: 'whole_hand',
      offsetMm,
      plusMinusMm,
      openStringHeard,
      ...(positionId && { positionId }),
    }),
  })
  return [of(), ...(positions.length > 1 ? positions.map((id) => of(id)) : [])]
}
