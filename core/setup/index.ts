export { whenWithin } from './reach'
export type { Reach } from './reach'
export {
  SCHOOL_QUESTIONS,
  SCHOOL_QUESTION_IDS,
  USUAL_SCHOOLS,
  schoolsOf,
  questionsOf,
  tapeSchoolFor,
} from './schools'
export type { SchoolChoice, SchoolQuestion, Schools, SomeSchools } from './schools'
export { answerOf } from './answers'
export type { AnsweredItem, SetupAnswer, SetupLimits } from './answers'
export { SETUP_ITEMS, SETUP_ITEM_IDS, isSetupItem, setupLimits, setupMeasureOf } from './items'
export type { SetupItemId, SetupMeasure } from './items'
export { arrangedItems, roundItems, standingOf, ALWAYS_FIRST, USUAL_ARRANGEMENT } from './round'
export type { OwnItem, RoundItem, RoundStanding, SetupArrangement } from './round'
export { longNearly, setupNow, NEARLY_FOR_DAYS } from './history'
export type { ItemStanding, SetupRound } from './history'
export { SYMPTOMS, itemsBehind, oddsOf, symptomsOf } from './implications'
export type { Symptom } from './implications'
export { schoolConflicts } from './conflicts'
export type { ConflictCode, ConflictFacts, SchoolConflict } from './conflicts'
export { gateChecksOf, gatesOf, COVERED_APART_DAYS, GATE_IDS, SAID_ITEMS } from './gates'
export type { Gate, GateFacts, GateId, KeptCheckLike, Missing, SaidItem } from './gates'
export type { GateCheck } from './gate-check'
export { bodyFitDoubts, bodyFitJumps, bodyFitParts, BODY_FIT_LIMITS, NO_BODY_FIT } from './body-fit'
export type { BodyFitDoubt, BodyFitPart, BodyFitValues } from './body-fit'
export { readMeasure } from './measured'
export type { ReadMeasure } from './measured'
export { isDrawnItem, setupFigure } from './figures'
export type { FigureAsked, FigureSide } from './figures'
export { bodyFitFigures } from './fit-figures'
export type { FitFigure } from './fit-figures'
