export { dueOn, REMEASURE_AFTER_DAYS, CHECK_HAND_AFTER_DAYS } from './due'
export type { Due, StudentFacts } from './due'
