import { defineStore } from 'pinia'
import { computed, ref, shallowReactive } from 'vue'
import { governingSystemId } from '#core'
import { LONGEST_PAGE, type ClientInput, type Instrument, type Page, type Student } from '#contracts'
import { call } from '../api/client'
import { useSession } from './session'

export type RosterQuery = ClientInput<'students.list'>['query']
export type CupboardQuery = ClientInput<'instruments.list'>['query']

/** The students and instruments that were read so far, kept current by what is saved; lists name them by id. */
export const useStudio = defineStore('studio', () => {
  const session = useSession()
  const students = shallowReactive(new Map<string, Student>())
  const instruments = shallowReactive(new Map<string, Instrument>())
  /** Grows with every save: a list that was read before may stand otherwise now. */
  const saves = ref(0)

  /** How many are on the roster, as the server said last. */
  const enrolled = ref<number>()
  /** Counts what is asked for and what is saved: an answer never overwrites what is newer than its question. */
  let moment = 0
  const savedAt = new Map<string, number>()
  const shownAt = new Map<string, number>()
  const isOlder = (id: string, asked: number) => asked < Math.max(savedAt.get(id) ?? 0, shownAt.get(id) ?? 0)

  function putInstrument(row: Instrument, asked: number) {
    if (isOlder(row.id, asked)) return
    shownAt.set(row.id, asked)
    instruments.set(row.id, row)
    for (const student of students.values())
      if (student.instrument?.id === row.id && student.instrument !== row)
        students.set(student.id, { ...student, instrument: row })
  }
  function putStudent(row: Student, asked: number) {
    if (row.instrument) putInstrument(row.instrument, asked)
    if (isOlder(row.id, asked)) return
    shownAt.set(row.id, asked)
    const own = row.instrument && (instruments.get(row.instrument.id) ?? row.instrument)
    students.set(row.id, { ...row, instrument: own })
  }

  async function findStudents(query: RosterQuery): Promise<Page<string>> {
    const asked = ++moment
    const { total, rows } = await call('students.list', { query })
    for (const row of rows) putStudent(row, asked)
    if (!query?.q) enrolled.value = total
    return { total, rows: rows.map((row) => row.id) }
  }
  async function findInstruments(query: CupboardQuery): Promise<Page<string>> {
    const asked = ++moment
    const { total, rows } = await call('instruments.list', { query })
    for (const row of rows) putInstrument(row, asked)
    return { total, rows: rows.map((row) => row.id) }
  }
  /** Every instrument that a query finds, read page by page. */
  async function allInstruments(query: CupboardQuery): Promise<string[]> {
    const ids: string[] = []
    for (;;) {
      const { total, rows } = await findInstruments({ ...query, offset: ids.length, limit: LONGEST_PAGE })
      ids.push(...rows)
      if (rows.length === 0 || ids.length >= total) return [...new Set(ids)]
    }
  }
  /** The ids of who has a lesson on the next day that has some, counted from a day of the week (0 is Sunday). */
  async function nextLessons(
    from: number,
    page: { readonly offset?: number; readonly limit?: number } = {},
  ): Promise<{ weekday: number | null; total: number; ids: string[] }> {
    const asked = ++moment
    const { weekday, total, students: rows } = await call('students.lessons', { query: { from, ...page } })
    for (const row of rows) putStudent(row, asked)
    return { weekday, total, ids: rows.map((row) => row.id) }
  }

  async function loadStudent(studentId: string): Promise<Student> {
    const asked = ++moment
    const row = await call('students.read', { params: { studentId } })
    putStudent(row, asked)
    return students.get(studentId) ?? row
  }
  async function loadInstrument(instrumentId: string): Promise<Instrument> {
    const asked = ++moment
    const row = await call('instruments.read', { params: { instrumentId } })
    putInstrument(row, asked)
    return instruments.get(instrumentId) ?? row
  }

  function takeInstrument(saved: Instrument) {
    savedAt.set(saved.id, ++moment)
    putInstrument(saved, moment)
    saves.value++
  }
  function takeStudent(saved: Student) {
    savedAt.set(saved.id, ++moment)
    if (saved.instrument) savedAt.set(saved.instrument.id, moment)
    putStudent(saved, moment)
    saves.value++
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
    student: (id: string) => students.get(id),
    instrument: (id: string) => instruments.get(id),
    /** On the roster and read so far, by name. */
    roster: computed(() =>
      [...students.values()]
        .filter((student) => student.removedAt === null)
        .sort((a, b) => a.name.localeCompare(b.name)),
    ),
    /** Nobody is enrolled yet; false until that is known. */
    isEmpty: computed(
      () => enrolled.value === 0 && [...students.values()].every(({ removedAt }) => removedAt !== null),
    ),
    /** Read so far, no. 2 before no. 10. */
    cupboard: computed(() => [...instruments.values()].sort((a, b) => collator.compare(a.label, b.label))),
    saves,
    findStudents,
    findInstruments,
    allInstruments,
    nextLessons,
    loadStudent,
    loadInstrument,
    takeStudent,
    takeInstrument,
    /** Something was saved that nobody here has taken: lists are read anew. */
    noteSave: () => void saves.value++,
    systemOf,
    forget() {
      students.clear()
      enrolled.value = undefined
      instruments.clear()
      shownAt.clear()
      savedAt.clear()
    },
  }
})

/** Made once: thousands of labels are compared with it. */
const collator = new Intl.Collator(undefined, { numeric: true })
