import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, watch } from 'vue'
import { ApiProblem } from '../api/client'
import { useSession } from './session'
import { useStudio } from './studio'

/** Who is in the lesson now. Only the id is remembered, and only until the tab is closed. */
export const useLesson = defineStore('lesson', () => {
  const session = useSession()
  const studio = useStudio()
  const studentId = useSessionStorage('jadefell.lesson', '')
  const student = computed(() => studio.student(studentId.value))
  /** An instrument of the cupboard that is looked at for itself, whoever is in the lesson. */
  const instrumentId = useSessionStorage('jadefell.bench.instrument', '')
  const instrument = computed(() => studio.instrument(instrumentId.value))

  /** After a reload only the ids are known. */
  function complete() {
    if (!session.session) return
    if (studentId.value !== '' && !student.value)
      void studio.loadStudent(studentId.value).catch(forgetMissing(() => (studentId.value = '')))
    if (instrumentId.value !== '' && !instrument.value)
      void studio.loadInstrument(instrumentId.value).catch(forgetMissing(() => (instrumentId.value = '')))
  }
  watch([() => session.session?.user.id, studentId, instrumentId], complete, { immediate: true })

  return {
    studentId,
    student,
    instrumentId,
    instrument,
    complete,
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

/** What is not in this studio is not in its lesson; what the server cannot say now is asked for again later. */
function forgetMissing(forget: () => void) {
  return (error: unknown) => {
    if (error instanceof ApiProblem && error.code === 'not_found') return forget()
    if (!(error instanceof ApiProblem && (error.isPassing || error.code === 'not_signed_in'))) throw error
  }
}
