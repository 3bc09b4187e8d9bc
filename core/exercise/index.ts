export { exerciseOf } from './exercise-of'
export type { ExerciseFault, MadeExercise } from './exercise-of'
