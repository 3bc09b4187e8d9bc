export { fillingSpaceMm, lineSheet, LINE_MARGIN_MM, moved, STAFF_SPACE_MM, stripOf } from './sheet'
export type { DrawnLine, LineSheetRequest, StripDrawing, StripPlace } from './sheet'
export { scoreOf, takeScore, VALUES } from './score'
export type { NoteValue, LineNote, Score, ScoreNote, SecondNote, Sign } from './score'
