import { computed, watch, type Ref } from 'vue'
import { proposedExercise, type ExerciseName as CoreName, type Note, nameOfRecord } from '#core'
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
    return exercise !== null && exercise.kind !== 'free' && nameOfRecord(exercise, tuning.value) !== undefined
  }
  function isSame(exercise: ExerciseName, chosen: CoreName): boolean {
    const now: object = chosen
    const asked = Object.entries(nameOfRecord(exercise, tuning.value) ?? {})
    return asked.length > 0 && asked.every(([key, value]) => Reflect.get(now, key) === value)
  }

  return {
    proposal,
    accept() {
      if (proposal.value) Object.assign(exercises.choice, nameOfRecord(proposal.value.exercise, tuning.value))
    },
  }
}
