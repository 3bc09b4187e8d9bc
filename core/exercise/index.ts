export { exerciseOf, stringsThatPlay } from './exercise-of'
export type { ExerciseFault, MadeExercise, ScaleSchool } from './exercise-of'
