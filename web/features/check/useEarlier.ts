import { computed, watch, type Ref } from 'vue'
import { earlierTakes, MOST_EARLIER, type EarlierTake } from '#core'
import type { Check, Student } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { useKeptCheck } from '../../stores/kept-check'
import { CHECKS_BESIDE } from '../../stores/reads'
import { useOfStudent } from '../../stores/useOfStudent'

/** Without the server this take is judged by itself. */
function none(error: unknown): Check[] {
  if (error instanceof ApiProblem && error.isPassing) return []
  throw error
}

/** Earlier takes of whoever plays, on the instrument that is played, unless they are not to have a say. */
export function useEarlier(student: Ref<Student | undefined>) {
  const keptCheck = useKeptCheck()
  const withEarlier = useOfStudent(
    'jadefell.earlier-takes',
    computed(() => student.value?.id),
    true,
  )
  const checks = useLoaded(
    () => student.value?.id,
    (studentId) =>
      call('checks.list', { params: { studentId }, query: { limit: CHECKS_BESIDE } }).catch(none),
  )
  const recent = computed<EarlierTake[]>(() => {
    const own = (checks.data.value ?? []).filter(
      (check) => check.instrumentId === student.value?.instrument?.id,
    )
    const records = own
      .slice(0, MOST_EARLIER)
      .map((check) => ({ ...check, isOverruled: check.decision?.says === 'overruled' }))
    return earlierTakes(records, Date.now())
  })
  // What is in sight as the kept verdict is no earlier take of itself: the next note asks for it.
  watch(
    () => keptCheck.kept,
    (now, before) => before && !now && void checks.reload(),
  )
  return {
    withEarlier,
    /** There are some, whether they have a say or not. */
    hasEarlier: computed(() => recent.value.length > 0),
    earlier: computed(() => (withEarlier.value ? recent.value : [])),
  }
}
