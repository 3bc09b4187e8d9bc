export { placeOfRatio, ratioAtPlace, placeOfCents, centsAtPlace, centsPerMm, placeErrorMm } from './place'
export {
  STRING_MATERIALS,
  STRAIN,
  HIGHEST_STRING_MM,
  heightFault,
  stringHeightMm,
  pressingCents,
  pressedPlace,
} from './pressing'
export type { StringMaterial, Pressing, PressingFault } from './pressing'
export { ringsOf, ringChecks, AUDIBLE_STRENGTH, STRONG_STRENGTH } from './ring'
export type { Ring, RingKind, RingCheck } from './ring'
export { fitRings, placeSigmaMm, MEASURED_PRIOR, QUESTIONED_SIGMAS, NINETEEN_IN_TWENTY } from './fit'
export type { RingFind, RingFit, FitFind, FitPrior } from './fit'
export { lengthsFor, placeOnBed, centsOnBed, pressShiftMm, sigmaOnBed, stringLengthMm, isEven } from './bed'
export type { StringBed } from './bed'
