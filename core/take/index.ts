export {
  isSamePlace,
  pitchOfExpected,
  placesOf,
  playedNotes,
  shapeExercise,
  targetOf,
  targetsOf,
} from './exercise'
export type { Exercise, ExerciseName, ExpectedNote, Target } from './exercise'
export { landedPlaces } from './landed'
export type { LandedPlace } from './landed'
export { landingAtCents, LANDING_SOURCES, READ_TO_CENTS } from './landing'
export type { HeardBeside, Landing, LandingFacts, LandingSource } from './landing'
export { landingFromMeter, shownByMeter, MAX_METER_CENTS, METER_SIGMA_CENTS } from './meter'
export { landingOfReading, sideSeen, mostOffMm, RULER_SIGMA_MM, SIDES, tapeOf } from './reading'
export type { Reading, Side, TapeOfPlace } from './reading'
export {
  heardOfRecord,
  landingsOnto,
  nameOfRecord,
  recordedLanding,
  recordedName,
  recordedNote,
  stringNamed,
  takeOfRecord,
} from './record'
export type { RecordedLanding, RecordedName, RecordedNote, TakeRecord } from './record'
export type { Take } from './take'
export { decodeTrack, encodeTrack, MAX_TRACK_BYTES, TRACK_STEP_S } from './track'
export type { PitchTrack } from './track'
