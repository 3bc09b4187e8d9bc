import { computed, shallowRef, toValue, watch, type MaybeRefOrGetter } from 'vue'
import { dueOn, isoDay, tapesDue, type Due } from '#core'
import { LONGEST_PAGE, type Student, type StudioSettings } from '#contracts'
import { useLoaded } from '../api/useLoaded'
import { LESSONS_AT_ONCE } from './reads'
import { useSettings } from './settings'
import { useStudio } from './studio'
import { studioDay } from '../words/shown'

export interface LessonRow {
  readonly student: Student
  readonly time: string
  readonly due: readonly Due[]
}

/** The day with the next lessons, counted from `today`, and its lessons in order; `isKnown` once the server has said. */
export function useLessonDay(from: MaybeRefOrGetter<Date>) {
  const today = computed(() => toValue(from))
  const studio = useStudio()
  const settings = useSettings()
  const { data: next, reload } = useLoaded(
    () => String(today.value.getDay()),
    (from) => studio.nextLessons(Number(from), { limit: LESSONS_AT_ONCE }),
  )
  watch(() => studio.saves, reload)
  /** Of a very long day the rest follows, part by part: the first lessons do not wait for the last. */
  const rest = shallowRef<readonly string[]>([])
  watch(next, async (first) => {
    const found: string[] = []
    while (first && first === next.value && LESSONS_AT_ONCE + found.length < first.total) {
      const offset = LESSONS_AT_ONCE + found.length
      const { ids } = await studio.nextLessons(today.value.getDay(), { offset, limit: LONGEST_PAGE })
      if (ids.length === 0) break
      found.push(...ids)
      // What is shown already stays until as much of the new has come.
      if (first === next.value && found.length > rest.value.length) rest.value = [...found]
    }
    if (first === next.value) rest.value = found
  })

  const daysAhead = computed(
    () => ((next.value?.weekday ?? today.value.getDay()) - today.value.getDay() + 7) % 7,
  )
  const day = computed(() => {
    const date = new Date(today.value)
    date.setDate(date.getDate() + daysAhead.value)
    return date
  })
  const rows = computed<LessonRow[]>(() =>
    [...(next.value?.ids ?? []), ...rest.value].flatMap((id) => {
      const student = studio.student(id)
      return student
        ? [
            {
              student,
              time: student.lesson?.time ?? '',
              // A day that stands on its calendar page already, not a moment.
              due: dueOf(student, isoDay(day.value), settings.intervals),
            },
          ]
        : []
    }),
  )
  return {
    day,
    rows,
    isToday: computed(() => next.value?.weekday === today.value.getDay()),
    isKnown: computed(() => next.value !== undefined),
  }
}

/** What is due for a student on a day (ISO date), as often as the studio looks. */
export function dueOf(student: Student, today: string, intervals?: StudioSettings['intervals']): Due[] {
  const { instrument, lastCheck, pains, setup } = student
  return dueOn(
    today,
    {
      hasInstrument: instrument !== null,
      measuredOn: instrument?.measurement?.measuredOn,
      tapes: instrument ? tapesDue(today, instrument, intervals) : [],
      checkedOn: lastCheck ? studioDay(new Date(lastCheck.takenAt)) : undefined,
      pains,
      setup: setup?.standings ?? [],
    },
    intervals,
  )
}
