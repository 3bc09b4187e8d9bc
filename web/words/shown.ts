import { shallowReactive } from 'vue'
import { exerciseBook, isoDay, type ExerciseBook, type OwnExercise } from '#core'
import type { StudioSettings } from '#contracts'

/** How lengths and notes are written, and what exercises are called, as the studio has it; whoever writes one is told of a change. */
export const shown = shallowReactive<
  Pick<StudioSettings, 'lengthUnit' | 'noteNames' | 'bassPositions' | 'timeZone'> & {
    exercises: ExerciseBook
  }
>({
  exercises: exerciseBook(),
  timeZone: null,
  lengthUnit: 'mm',
  noteNames: 'letters',
  bassPositions: 'numerals',
})

export function showAs({
  lengthUnit,
  noteNames,
  bassPositions = 'numerals',
  timeZone = null,
  exercises = [],
}: Pick<StudioSettings, 'lengthUnit' | 'noteNames'> &
  Partial<Pick<StudioSettings, 'bassPositions' | 'timeZone'>> & {
    readonly exercises?: readonly OwnExercise[]
  }): void {
  shown.exercises = exerciseBook(exercises)
  shown.timeZone = timeZone
  shown.lengthUnit = lengthUnit
  shown.noteNames = noteNames
  shown.bassPositions = bassPositions
}

/** The studio’s day of an instant, as an ISO date; of now where none is given. Until the studio has said, this machine’s. */
export function studioDay(at: Date = new Date()): string {
  return isoDay(at, shown.timeZone)
}
