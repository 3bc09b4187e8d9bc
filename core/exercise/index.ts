export { exerciseOf } from './exercise-of'
export type { ExerciseFault, MadeExercise, ScaleSchool } from './exercise-of'
