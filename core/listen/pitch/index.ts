export { PitchTracker, SAMPLE_RATES_HZ, stretchS, TRACKER_OPTIONS } from './tracker'
export type { PitchFrame, TrackerOptions } from './tracker'
export { FIT_OPTIONS, HarmonicFitter } from './harmonic-fit'
export type { FitOptions, HarmonicFit } from './harmonic-fit'
