export { proportionInterval } from './proportion'
export { logSum, normalBelow } from './normal'
export { chiSquare, studentsT } from './students-t'
export { fitLine, slopeInterval, whereLineReaches, type FittedLine, type Point } from './line'
