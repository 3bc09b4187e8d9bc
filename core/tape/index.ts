export { tapeChart, DEFAULT_TAPE_WIDTH_MM } from './chart'
export type { ChartRequest, StringPlace, TapeMark } from './chart'
export { handTargets } from './targets'
export type { Target } from './targets'
