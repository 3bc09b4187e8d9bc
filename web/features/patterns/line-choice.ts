import type { DoubleStopKind, DrillId, FigureId, LineNote, NoteValue } from '#core'

export type PlayedFigure = FigureId | DrillId | DoubleStopKind

/** What is practised, and how. */
export interface LineChoice {
  figure: PlayedFigure
  octaves: 1 | 2 | 3
  openStrings: 'prefer' | 'avoid'
  value: NoteValue
  /** Quarter notes a minute. */
  tempo: number
  isLoop: boolean
}

export const FIRST_LINE: LineChoice = {
  figure: 'scale',
  octaves: 1,
  openStrings: 'prefer',
  value: 'quarter',
  tempo: 60,
  isLoop: false,
}

/** A note of the line, on its string. */
export type PlayedNote = LineNote & { readonly stringIndex: number; readonly semitones: number }

export interface Run {
  readonly notes: readonly PlayedNote[]
  readonly fault: string
}
