import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import { useStudio } from './studio'

/** Who is in the lesson now. Only the id is remembered, and only until the tab is closed. */
export const useLesson = defineStore('lesson', () => {
  const studentId = useSessionStorage('jadefell.lesson', '')
  const student = computed(() => useStudio().students?.find((s) => s.id === studentId.value))
  /** An instrument of the cupboard that is looked at for itself, whoever is in the lesson. */
  const instrumentId = useSessionStorage('jadefell.bench.instrument', '')
  return {
    studentId,
    student,
    instrumentId,
    begin(id: string) {
      studentId.value = id
      instrumentId.value = ''
    },
    end() {
      studentId.value = ''
      instrumentId.value = ''
    },
  }
})
