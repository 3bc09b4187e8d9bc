export { dueOn, USUAL_INTERVALS, REMEASURE_AFTER_DAYS, CHECK_HAND_AFTER_DAYS } from './due'
export type { Due, Intervals, StudentFacts } from './due'
export { proposedExercise } from './proposal'
export type { PastCheck, Proposal } from './proposal'
