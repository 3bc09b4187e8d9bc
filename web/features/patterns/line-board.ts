import { placeOfNote, type Stringing } from '#core'
import type { BoardFinger } from '../../board/board'
import { noteLabel } from '../../words/notes'
import type { PlayedNote } from './line-choice'

/** Every place of a line on the board, the one that sounds in full; `widthMm` is the fingertip's. */
export function fingersOfLine(
  stringing: Stringing,
  notes: readonly PlayedNote[],
  at: number | undefined,
  widthMm: number,
): BoardFinger[] {
  const now = at === undefined ? undefined : notes[at]
  const seen = new Map<string, BoardFinger>()
  const stopped = notes.flatMap((n) =>
    n.second ? [n, { ...n.second, stringIndex: n.stringIndex + 1 }] : [n],
  )
  for (const n of stopped) {
    if (n.finger === 0) continue
    const isNow = now !== undefined && (n === now || n.note === now.second?.note)
    const id = `${n.stringIndex} ${n.note.letter}${n.note.accidental}${n.note.octave}`
    if (seen.has(id) && !isNow) continue
    seen.set(id, {
      stringIndex: n.stringIndex,
      finger: n.finger,
      placeMm: placeOfNote(stringing, n.stringIndex, n.note),
      note: noteLabel(n.note, { octave: false }),
      widthMm,
      isResting: false,
      isMarked: false,
      isPale: !isNow,
    })
  }
  return [...seen.values()]
}
