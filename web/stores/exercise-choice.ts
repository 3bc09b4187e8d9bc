import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { ExerciseName } from '#core'

export type ExerciseKind = ExerciseName['kind']

/** What is to be played in a check: its kind, and what each kind asks for. */
export interface ExerciseChoice {
  kind: ExerciseKind
  stringIndex: number
  shapeId: string
  keyId: string
  positionId: string
  octaves: 1 | 2 | 3
  openStrings: 'prefer' | 'avoid'
  drillId: string
}

/** Chosen in another room, for whoever is in the lesson by then. */
const FOR_ANYBODY = 'anybody'

const FIRST: ExerciseChoice & { of: string } = {
  of: '',
  kind: 'shape',
  stringIndex: 0,
  shapeId: '',
  keyId: 'D:major',
  positionId: 'first',
  octaves: 1,
  openStrings: 'prefer',
  drillId: 'one_two_one',
}

/** The exercise that is checked: it stays over a reload, and other rooms may choose it. */
export const useExerciseChoice = defineStore('exercise-choice', () => {
  const choice = useSessionStorage<ExerciseChoice & { of: string }>(
    'jadefell.exercise',
    { ...FIRST },
    { mergeDefaults: true },
  )
  return {
    choice,
    name: computed<ExerciseName>(() => exerciseNamed(choice.value)),
    /** From another room: what is looked at there is checked next. */
    choose: (chosen: Partial<ExerciseChoice>) => Object.assign(choice.value, chosen, { of: FOR_ANYBODY }),
    /** Whose exercise it is from now on; `first` chooses it where it was somebody else’s. */
    settle(of: string, first: () => Partial<ExerciseChoice>) {
      const { of: before } = choice.value
      if (before === of) return
      Object.assign(choice.value, before === FOR_ANYBODY ? {} : first(), { of })
    },
  }
})

function exerciseNamed(choice: ExerciseChoice): ExerciseName {
  const { kind, stringIndex, shapeId, keyId, positionId, octaves, openStrings, drillId } = choice
  switch (kind) {
    case 'shape':
      return { kind, stringIndex, shapeId }
    case 'hand':
      return { kind, keyId, stringIndex, positionId }
    case 'drill':
      return { kind, drillId, keyId, stringIndex, positionId }
    case 'fourth':
    case 'octave':
      return { kind, stringIndex }
    case 'free':
      return { kind }
    default:
      return { kind, keyId, octaves, openStrings }
  }
}
