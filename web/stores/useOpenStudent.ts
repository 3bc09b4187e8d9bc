import { computed, type ComputedRef } from 'vue'
import type { Student } from '#contracts'
import { useLoaded } from '../api/useLoaded'
import { useStudio } from './studio'

/** The student whose page is open: as far as known at once, and read anew. */
export function useOpenStudent(id: () => string): ComputedRef<Student | undefined> {
  const studio = useStudio()
  const loaded = useLoaded(id, (studentId) => studio.loadStudent(studentId))
  return computed(() => studio.student(id()) ?? loaded.data.value)
}
