export { isoDay, isTimeZone, dayNumber, dayOf, daysBetween } from './day'
