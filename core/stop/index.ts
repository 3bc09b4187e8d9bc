export { placeOfRatio, ratioAtPlace, placeOfCents, centsAtPlace, centsPerMm, placeErrorMm } from './place'
export {
  STRING_MATERIALS,
  STRAIN,
  HIGHEST_STRING_MM,
  heightFault,
  stringHeightMm,
  pressingCents,
  pressedPlace,
  pressingOn,
} from './pressing'
export type { StringMaterial, Pressing, PressingFault } from './pressing'
export { ringsOf, ringChecks, AUDIBLE_STRENGTH, STRONG_STRENGTH } from './ring'
export type { Ring, RingKind, RingCheck } from './ring'
export {
  calibrateByRings,
  calibratedSigmaMm,
  calibrationPrior,
  LENGTH_SOURCES,
  PLACE_SIGMA_MM,
  QUESTIONED_SIGMAS,
  NORMAL_95,
} from './calibration'
export type {
  Calibration,
  CalibrationPrior,
  LengthSource,
  JudgedFind,
  RingCalibration,
  RingObservation,
} from './calibration'
