import { computed, watch, type Ref } from 'vue'
import { proposedExercise, type ExerciseName as CoreName, type Note, noteName } from '#core'
import type { CheckSummary, ExerciseName, Student } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { useExerciseChoice } from '../../stores/exercise-choice'
import { useKeptCheck } from '../../stores/kept-check'
import { useSettings } from '../../stores/settings'
import { shortDay } from '../../words/dates'
import { exerciseName } from '../../words/exercises'
import { studioDay } from '../../words/shown'

/** While the server is away there is no proposal, and the page says so already. */
function withoutPast(error: unknown): CheckSummary[] {
  if (error instanceof ApiProblem && error.isPassing) return []
  throw error
}

/** What a student plays next: what was off last, or what nobody has heard for long; undefined where nothing asks for it. */
export function useProposal(student: Ref<Student | undefined>, tuning: Ref<readonly Note[]>) {
  const settings = useSettings()
  const keptCheck = useKeptCheck()
  const exercises = useExerciseChoice()
  const latest = useLoaded(
    () => student.value?.id,
    (studentId) => call('checks.latest', { params: { studentId } }).catch(withoutPast),
  )
  watch(
    () => keptCheck.kept?.check.id,
    (id) => id !== undefined && void latest.reload(),
  )

  const proposal = computed(() => {
    const of = student.value
    const checks = (latest.data.value ?? []).filter((check) => isPlayable(check))
    const proposed =
      of &&
      proposedExercise(
        studioDay(),
        checks.map((check) => ({
          exerciseId: check.id,
          takenOn: studioDay(new Date(check.takenAt)),
          isOff: 'findings' in check.verdict && check.decision?.says !== 'overruled',
        })),
        settings.intervals?.checkHandDays,
      )
    const exercise = checks.find(({ id }) => id === proposed?.exerciseId)?.exercise
    if (!of || !proposed || !exercise) return undefined
    const day = shortDay(proposed.takenOn)
    return {
      exercise,
      name: exerciseName(exercise),
      why: proposed.reason === 'last_off' ? `off on ${day}` : `not heard since ${day}`,
      isChosen: isSame(exercise, exercises.name),
    }
  })

  /** What nobody can name a second time, or has no string for here, is not proposed. */
  function isPlayable({ exercise }: CheckSummary): boolean {
    if (!exercise || exercise.kind === 'free') return false
    return !('string' in exercise) || stringOf(exercise.string) >= 0
  }
  function stringOf(name: string): number {
    return tuning.value.findIndex((open) => noteName(open) === name)
  }
  function isSame(exercise: ExerciseName, chosen: CoreName): boolean {
    const { kind, ...asked } = withIndex(exercise)
    const now = chosen as unknown as Record<string, unknown>
    return kind === chosen.kind && Object.entries(asked).every(([key, value]) => now[key] === value)
  }
  function withIndex(exercise: ExerciseName) {
    if (!('string' in exercise)) return exercise
    const { string, ...rest } = exercise
    return { ...rest, stringIndex: stringOf(string) }
  }

  return {
    proposal,
    accept() {
      if (proposal.value) Object.assign(exercises.choice, withIndex(proposal.value.exercise))
    },
  }
}
