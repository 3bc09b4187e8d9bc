import { noteName, type SoundedNote } from '#core'
import type { DataTable } from '../files/tables'
import type { TrackNote } from './track-notes'

/** Loudness is not kept with a note: all of a take are written alike. */
const LEVEL_DB = -18
/** How much of a note is its landing, at most. */
const LANDS_S = 0.15

/** The notes of a take as a table, times in seconds and pitches in cents. */
export function takeTable(notes: readonly TrackNote[]): DataTable {
  return {
    name: 'take',
    columns: ['start s', 'end s', 'string', 'finger', 'note', 'landing cents', 'settled cents'],
    rows: notes.map((n) => [
      rounded(n.startS, 3),
      rounded(n.endS, 3),
      n.stringIndex + 1,
      n.finger,
      noteName(n.note),
      rounded(n.landingCents, 1),
      rounded(n.settledCents, 1),
    ]),
  }
}

/** The same as a MIDI file takes them, as they sounded. */
export function soundedNotes(notes: readonly TrackNote[]): SoundedNote[] {
  return notes.map(({ startS, endS, meantCents, landingCents, settledCents }) => {
    const turnS = Math.min(startS + LANDS_S, (startS + endS) / 2)
    return {
      startS,
      endS,
      levelDb: LEVEL_DB,
      landing: { cents: meantCents + landingCents, toS: turnS },
      settled: { cents: meantCents + settledCents, fromS: turnS + 0.001 },
    }
  })
}

function rounded(value: number, digits: number): number {
  return Number(value.toFixed(digits))
}
