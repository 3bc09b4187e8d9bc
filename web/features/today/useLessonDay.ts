import { computed, type Ref } from 'vue'
import { isoDay, dueOn, tapesDue, type Due } from '#core'
import type { Student } from '#contracts'

export interface LessonRow {
  readonly student: Student
  readonly time: string
  readonly due: readonly Due[]
}

/** The day with the next lessons, counted from `today`, and its lessons in order. */
export function useLessonDay(students: Ref<readonly Student[]>, today: Date) {
  const daysAhead = computed(() => {
    const weekdays = new Set(students.value.map((s) => s.lesson?.weekday))
    const ahead = Array.from({ length: 7 }, (_, days) => days)
    return ahead.find((days) => weekdays.has((today.getDay() + days) % 7))
  })
  const day = computed(() => {
    const date = new Date(today)
    date.setDate(date.getDate() + (daysAhead.value ?? 0))
    return date
  })
  const rows = computed<LessonRow[]>(() =>
    students.value
      .flatMap((student) => {
        const { lesson } = student
        if (lesson?.weekday !== day.value.getDay()) return []
        return [{ student, time: lesson.time, due: dueOf(student, isoDay(day.value)) }]
      })
      .sort((a, b) => a.time.localeCompare(b.time)),
  )
  return { day, rows, isToday: computed(() => daysAhead.value === 0) }
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
