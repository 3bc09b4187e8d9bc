export { isoDay, dayNumber, dayOf, daysBetween } from './day'
