import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Instrument, Student } from '#contracts'
import { call } from '../api/client'

/** The roster and the cupboard as last read, kept current by what is saved. */
export const useStudio = defineStore('studio', () => {
  const students = ref<Student[]>()
  const instruments = ref<Instrument[]>()
  const roster = computed(() => students.value?.filter((s) => s.removedAt === null) ?? [])

  return {
    students,
    instruments,
    roster,
    async loadStudents() {
      students.value = await call('students.list', { query: {} })
    },
    async loadInstruments() {
      instruments.value = (await call('instruments.list', {})).sort(byLabel)
    },
    async loadStudent(studentId: string): Promise<Student> {
      const student = await call('students.read', { params: { studentId } })
      this.takeStudent(student)
      return student
    },
    takeStudent(student: Student) {
      const others = students.value?.filter((s) => s.id !== student.id)
      if (others) students.value = [...others, student].sort((a, b) => a.name.localeCompare(b.name))
    },
    takeInstrument(instrument: Instrument) {
      const others = instruments.value?.filter((i) => i.id !== instrument.id) ?? []
      if (instruments.value) instruments.value = [...others, instrument].sort(byLabel)
      students.value = students.value?.map((s) =>
        s.instrument?.id === instrument.id ? { ...s, instrument } : s,
      )
    },
    forget() {
      students.value = undefined
      instruments.value = undefined
    },
  }
})

/** Made once: thousands of labels are compared with it. */
const collator = new Intl.Collator(undefined, { numeric: true })

/** no. 2 before no. 10. */
function byLabel(a: Instrument, b: Instrument): number {
  return collator.compare(a.label, b.label)
}
