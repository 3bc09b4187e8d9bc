import { computed, watch } from 'vue'
import { isoDay, dueOn, tapesDue, type Due } from '#core'
import type { Student } from '#contracts'
import { useLoaded } from '../api/useLoaded'
import { useStudio } from './studio'

export interface LessonRow {
  readonly student: Student
  readonly time: string
  readonly due: readonly Due[]
}

/** The day with the next lessons, counted from `today`, and its lessons in order; `isKnown` once the server has said. */
export function useLessonDay(today: Date) {
  const studio = useStudio()
  const { data: next, reload } = useLoaded(
    () => String(today.getDay()),
    (from) => studio.nextLessons(Number(from)),
  )
  watch(() => studio.saves, reload)

  const daysAhead = computed(() => ((next.value?.weekday ?? today.getDay()) - today.getDay() + 7) % 7)
  const day = computed(() => {
    const date = new Date(today)
    date.setDate(date.getDate() + daysAhead.value)
    return date
  })
  const rows = computed<LessonRow[]>(() =>
    (next.value?.ids ?? []).flatMap((id) => {
      const student = studio.student(id)
      return student
        ? [{ student, time: student.lesson?.time ?? '', due: dueOf(student, isoDay(day.value)) }]
        : []
    }),
  )
  return {
    day,
    rows,
    isToday: computed(() => next.value?.weekday === today.getDay()),
    isKnown: computed(() => next.value !== undefined),
  }
}

/** What is due for a student on a day (ISO date). */
export function dueOf(student: Student, today: string): Due[] {
  const { instrument, lastCheck } = student
  return dueOn(today, {
    hasInstrument: instrument !== null,
    measuredOn: instrument?.measurement?.measuredOn,
    tapes: instrument ? tapesDue(today, instrument) : [],
    checkedOn: lastCheck ? isoDay(new Date(lastCheck.takenAt)) : undefined,
  })
}
