export { isIsoDay, isoDay, isTimeZone, dayNumber, dayOf, daysBetween } from './day'
