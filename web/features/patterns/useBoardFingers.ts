import { computed } from 'vue'
import { placedStops } from '#core'
import type { BoardFinger } from '../../board/board'
import { useBench } from '../../stores/bench'
import type { Patterns } from './usePatterns'
import { noteLabel } from '../../words/notes'

/** The fingers of every string's hand for the board: those of the string looked at in full, the others pale. */
export function useBoardFingers(patterns: Patterns) {
  const bench = useBench()
  const { atlas } = patterns
  return computed<BoardFinger[]>(() => {
    const moved = new Set(atlas.diff.value?.moves.map((m) => `${m.stringIndex} ${m.to.finger}`))
    return atlas.cells.value.flatMap((cell) =>
      cell.kind === 'none'
        ? []
        : placedStops(bench.stringing, cell).map((stop) => ({
            stringIndex: cell.stringIndex,
            finger: stop.finger,
            placeMm: stop.placeMm,
            note: noteLabel(stop.note, { octave: false }),
            widthMm: patterns.fingertip.widthMm,
            isResting: !stop.isInScale,
            isMarked:
              moved.has(`${cell.stringIndex} ${stop.finger}`) ||
              (cell.extension === 'back' && stop.finger === 1) ||
              (cell.extension === 'forward' && stop.finger !== 1),
            isPale: cell.stringIndex !== atlas.stringIndex.value,
          })),
    )
  })
}
