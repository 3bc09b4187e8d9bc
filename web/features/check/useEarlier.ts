import { computed, watch, type Ref } from 'vue'
import { useLocalStorage } from '@vueuse/core'
import { takeOfRecord, type EarlierTake } from '#core'
import type { Check, Student } from '#contracts'
import { ApiProblem, call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { useKeptCheck } from '../../stores/kept-check'

const DAY_MS = 86_400_000
/** Checks that are looked through for those of the same instrument. */
const RECENT = 24
/** Of these so many have a say; the server asks for as many. */
const EARLIER = 8

/** Without the server this take is judged by itself. */
function none(error: unknown): Check[] {
  if (error instanceof ApiProblem && error.isPassing) return []
  throw error
}

/** Earlier takes of whoever plays, on the instrument that is played, unless they are not to have a say. */
export function useEarlier(student: Ref<Student | undefined>) {
  const keptCheck = useKeptCheck()
  const withEarlier = useLocalStorage('jadefell.with-earlier', true)
  const checks = useLoaded(
    () => student.value?.id,
    (studentId) => call('checks.list', { params: { studentId }, query: { limit: RECENT } }).catch(none),
  )
  const recent = computed<EarlierTake[]>(() => {
    const now = Date.now()
    return (checks.data.value ?? [])
      .filter((check) => check.instrumentId === student.value?.instrument?.id)
      .slice(0, EARLIER)
      .flatMap((check) => earlierTake(check, now))
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

function earlierTake(check: Check, now: number): EarlierTake[] {
  if (check.decision?.says === 'overruled') return []
  const take = takeOfRecord(check)
  const daysAgo = Math.max(0, (now - Date.parse(check.takenAt)) / DAY_MS)
  return take ? [{ ...take, daysAgo, tapesCovered: check.tapesCovered }] : []
}
