export { dueOn, USUAL_INTERVALS, REMEASURE_AFTER_DAYS, CHECK_HAND_AFTER_DAYS } from './due'
export type { Due, Intervals, StudentFacts } from './due'
export { proposedExercise } from './proposal'
export type { PlayedBefore, Proposal } from './proposal'
export { CASE_IDS, casesFor, hiddenCasesFor, playCase } from './cases'
export type { CaseId, CasePlayed } from './cases'
export {
  isPracticeId,
  isPracticedOn,
  minutesOf,
  mostMinutes,
  PRACTICE,
  PRACTICE_IDS,
  PRACTICE_PARTS,
} from './exercises'
export type { Dose, ExerciseId, OwnExerciseId, PracticeExercise, PracticeId, PracticePart } from './exercises'
export { exerciseBook, MENDED } from './own'
export type { ExerciseBook, Mended, OwnExercise } from './own'
export { fingerWritten, MOST_WRITTEN, parseWritten, writtenFor, writtenText } from './written'
export type { Written, WrittenFault, WrittenNote } from './written'
export { exercisesFor, MATCH_EXERCISES, remediesFor } from './remedies'
export { LEARNING_EXERCISES } from './wishes'
export type { FoundFault, Held, LeftOut, LeftOutWhy, PlanFacts, PlanReason, Practised, Wish } from './wishes'
export { planWeek } from './plan'
export type { PlannedCard, PlanTerms, WeekPlan } from './plan'
export { daysUntilReview } from './spacing'
export { followedBy, mendCounts, mendInterval, SETUP_REASON } from './mends'
export type { Followed, FollowedFile, MendCount, SetupLook } from './mends'
export { effectOf } from './effect'
export type { Effect, Measured } from './effect'
export { checkForPlan, faultsOf, findingKey } from './facts'
export type { CheckForPlan } from './facts'
export { practiceNotes } from './notes'
export type { NotesFor } from './notes'
export { practiceSheet, SHEET_MARGIN_MM } from './sheet'
export type { PracticeSheetRequest, SheetRow } from './sheet'
