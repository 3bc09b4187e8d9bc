export { placeOfRatio, ratioAtPlace, placeOfCents, centsAtPlace, centsPerMm, placeErrorMm } from './place'
