export { fillingSpaceMm, lineSheet, LINE_MARGIN_MM, STAFF_SPACE_MM } from './sheet'
export type { DrawnLine, LineSheetRequest, StripPlace } from './sheet'
export { scoreOf, takeScore, VALUES } from './score'
export type { NoteValue, LineNote, Score, ScoreNote, SecondNote, Sign } from './score'
