export { scoreOf, takeScore, VALUES } from './score'
export type { NoteValue, LineNote, Score, ScoreNote, Sign } from './score'
