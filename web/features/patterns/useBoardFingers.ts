import { computed } from 'vue'
import { noteName } from '#core'
import type { BoardFinger } from '../../board/board'
import type { usePatterns } from '../../stores/patterns'
import { placesOf } from './places'

/** The fingers of every string's hand for the board: those of the string looked at in full, the others pale. */
export function useBoardFingers(patterns: ReturnType<typeof usePatterns>) {
  const { atlas, bench } = patterns
  return computed<BoardFinger[]>(() => {
    const moved = new Set(atlas.diff.value?.moves.map((m) => `${m.stringIndex} ${m.to.finger}`))
    return atlas.hands.value.flatMap((hand) =>
      hand.kind === 'none'
        ? []
        : placesOf(hand, bench.bed.value, atlas.tuning.value, bench.system.value).map((stop) => ({
            stringIndex: hand.stringIndex,
            finger: stop.finger,
            placeMm: stop.placeMm,
            note: noteName(stop.note, { octave: false }),
            widthMm: patterns.fingertip.widthMm,
            isResting: !stop.isInScale,
            isMarked:
              moved.has(`${hand.stringIndex} ${stop.finger}`) ||
              (hand.extension === 'back' && stop.finger === 1) ||
              (hand.extension === 'forward' && stop.finger !== 1),
            isPale: hand.stringIndex !== atlas.stringIndex.value,
          })),
    )
  })
}
