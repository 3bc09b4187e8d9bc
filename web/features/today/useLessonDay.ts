import { computed, type Ref } from 'vue'
import { dueOn, type Due } from '#core'
import type { Student } from '#contracts'
import { isoDay } from '../../words/dates'

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
        return [{ student, time: lesson.time, due: dueOn(isoDay(day.value), factsOf(student)) }]
      })
      .sort((a, b) => a.time.localeCompare(b.time)),
  )
  return { day, rows, isToday: computed(() => daysAhead.value === 0) }
}

/** What the core needs to know of a student to say what is due. */
export function factsOf(student: Student) {
  return {
    hasInstrument: student.instrument !== null,
    measuredOn: student.instrument?.measurement?.measuredOn,
    tapesLaidOn: student.instrument?.tapeSet?.laidOn,
    checkedOn: student.lastCheck ? isoDay(new Date(student.lastCheck.takenAt)) : undefined,
  }
}
