import { describe, expect, it } from 'vitest'
import { ref } from 'vue'
import type { Student } from '#contracts'
import { A_STUDENT } from '../../testing'
import { useLessonDay } from './useLessonDay'

const WEDNESDAY = new Date(2026, 10, 25, 8, 30)
const SATURDAY = new Date(2026, 10, 28, 8, 30)

function student(name: string, weekday: number | null, time = '09:00', part: Partial<Student> = {}): Student {
  return { ...A_STUDENT, id: name, name, lesson: weekday === null ? null : { weekday, time }, ...part }
}

describe('the lesson day', () => {
  it('is today when there are lessons today, in the order of the clock', () => {
    const students = ref([student('late', 6, '16:00'), student('early', 6, '09:00'), student('other day', 3)])
    const { rows, isToday } = useLessonDay(students, SATURDAY)
    expect(isToday.value).toBe(true)
    expect(rows.value.map((row) => row.student.name)).toEqual(['early', 'late'])
  })

  it('is the next day that has lessons otherwise', () => {
    const students = ref([student('saturday', 6), student('tuesday', 2), student('no day', null)])
    const { day, rows, isToday } = useLessonDay(students, WEDNESDAY)
    expect(isToday.value).toBe(false)
    expect(day.value.getDate()).toBe(28)
    expect(rows.value.map((row) => row.student.name)).toEqual(['saturday'])
  })

  it('is empty where nobody has a day', () => {
    expect(useLessonDay(ref([student('no day', null)]), WEDNESDAY).rows.value).toEqual([])
  })

  it('counts what is due on that day, not on the day it is looked at', () => {
    const taken = (takenAt: string) =>
      ({
        id: 'c',
        takenAt,
        exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
        verdict: { outcome: 'string_out_of_tune', cents: 9 },
      }) as const
    const students = ref([
      student('checked 29 days before Saturday', 6, '09:00', {
        lastCheck: taken('2026-10-30T09:00:00.000Z'),
      }),
      student('never checked', 6, '09:20'),
      student('without instrument', 6, '09:40', { instrument: null }),
    ])
    const { rows } = useLessonDay(students, WEDNESDAY)
    expect(rows.value.map((row) => row.due.map((due) => due.code))).toEqual([
      ['check_hand'],
      ['first_check'],
      ['no_instrument'],
    ])
  })
})
