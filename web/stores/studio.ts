import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { governingSystemId, stringingOfInstrument, type Stringing } from '#core'
import type { Instrument, Student } from '#contracts'
import { call } from '../api/client'
import { useSession } from './session'

/** The roster and the cupboard as last read, kept current by what is saved. */
export const useStudio = defineStore('studio', () => {
  const session = useSession()
  const students = ref<Student[]>()
  const instruments = ref<Instrument[]>()
  const roster = computed(() => students.value?.filter((s) => s.removedAt === null) ?? [])

  /** Counts what is asked for and what is saved: an answer never overwrites what is newer than its question. */
  let moment = 0
  const savedAt = new Map<string, number>()
  const shownAt = { students: 0, instruments: 0 }
  const isNewer = (id: string, asked: number) => (savedAt.get(id) ?? 0) > asked

  /** A list that was asked for at `asked`, with the rows in it that were saved since. */
  function upToDate<Row extends { readonly id: string }>(
    list: readonly Row[],
    own: readonly Row[],
    asked: number,
  ): Row[] {
    const newer = own.filter((row) => isNewer(row.id, asked))
    return [...list.filter((row) => !isNewer(row.id, asked)), ...newer]
  }
  const instrument = (id: string) =>
    instruments.value?.find((i) => i.id === id) ??
    students.value?.find((s) => s.instrument?.id === id)?.instrument ??
    undefined

  async function loadStudents() {
    const asked = ++moment
    const list = await call('students.list', { query: {} })
    if (asked < shownAt.students) return
    shownAt.students = asked
    students.value = upToDate(list, students.value ?? [], asked)
      .map((s) =>
        s.instrument && isNewer(s.instrument.id, asked)
          ? { ...s, instrument: instrument(s.instrument.id) ?? s.instrument }
          : s,
      )
      .sort(byName)
  }

  async function loadInstruments() {
    const asked = ++moment
    const list = await call('instruments.list', {})
    if (asked < shownAt.instruments) return
    shownAt.instruments = asked
    instruments.value = upToDate(list, instruments.value ?? [], asked).sort(byLabel)
  }

  function takeStudent(student: Student) {
    savedAt.set(student.id, ++moment)
    if (student.instrument) savedAt.set(student.instrument.id, moment)
    const others = students.value?.filter((s) => s.id !== student.id)
    if (others) students.value = [...others, student].sort(byName)
  }

  /** One student anew; what was saved meanwhile stays. */
  async function loadStudent(studentId: string): Promise<Student> {
    const asked = ++moment
    const student = await call('students.read', { params: { studentId } })
    const known = students.value?.find((s) => s.id === studentId)
    if (known && isNewer(studentId, asked)) return known
    takeStudent(student)
    return student
  }

  function takeInstrument(saved: Instrument) {
    savedAt.set(saved.id, ++moment)
    if (instruments.value)
      instruments.value = [...instruments.value.filter((i) => i.id !== saved.id), saved].sort(byLabel)
    students.value = students.value?.map((s) =>
      s.instrument?.id === saved.id ? { ...s, instrument: saved } : s,
    )
  }

  /** The tuning system that places follow: of the tapes laid, else of the student, else of the studio. */
  function systemOf(of: Instrument | undefined, student: Student | undefined): string {
    return governingSystemId({
      tapeSet: of?.tapeSet?.system,
      student: student?.system,
      studio: session.session?.studio.system,
    })
  }

  return {
    students,
    instruments,
    roster,
    instrument,
    loadStudents,
    loadInstruments,
    loadStudent,
    takeStudent,
    takeInstrument,
    systemOf,
    /** An instrument's strings in the system that governs it; whoever holds it has a say. */
    stringingOf(of: Instrument, systemId?: string): Stringing {
      const holder = students.value?.find((s) => s.id === of.holder?.studentId)
      return stringingOfInstrument(of, systemId ?? systemOf(of, holder))
    },
    forget() {
      students.value = undefined
      instruments.value = undefined
    },
  }
})

function byName(a: Student, b: Student): number {
  return a.name.localeCompare(b.name)
}

/** Made once: thousands of labels are compared with it. */
const collator = new Intl.Collator(undefined, { numeric: true })

/** no. 2 before no. 10. */
function byLabel(a: Instrument, b: Instrument): number {
  return collator.compare(a.label, b.label)
}
