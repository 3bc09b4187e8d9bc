export { playExercise, seededSource, NO_FAULTS } from './player'
export type { PlayerFaults, RandomSource } from './player'
