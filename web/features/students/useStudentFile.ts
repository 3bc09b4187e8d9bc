import { computed, onScopeDispose, ref, watch, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Check, Student } from '#contracts'
import { call } from '../../api/client'
import { useLoaded } from '../../api/useLoaded'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { CHECKS_AT_ONCE } from '../../stores/reads'
import { useStudio } from '../../stores/studio'
import { useDecide } from '../../stores/useDecide'
import { studioDay } from '../../words/shown'

/** One student's file: the student as the studio knows them, the checks, and what can be done from the file. */
export function useStudentFile(studentId: Ref<string>) {
  const studio = useStudio()
  const notices = useNotices()
  const outbox = useOutbox()
  const router = useRouter()
  const loaded = useLoaded(
    () => studentId.value,
    (id) => studio.loadStudent(id),
  )
  const checks = useLoaded(
    () => studentId.value,
    (id) => call('checks.list', { params: { studentId: id }, query: { limit: CHECKS_AT_ONCE } }),
  )
  /** Older ones are read when somebody asks for them. */
  const isAll = ref(false)
  const hasOlder = computed(() => (checks.data.value?.length ?? 0) >= CHECKS_AT_ONCE && !isAll.value)
  watch(studentId, () => (isAll.value = false))
  const student = computed(() => studio.student(studentId.value) ?? loaded.data.value)
  onScopeDispose(outbox.onArrival(() => void Promise.all([loaded.reload(), checks.reload()])))

  /** What was taken back last: with the next one lent, every tape moves. */
  let before: string | undefined

  async function setLoan(of: Student, instrumentId: string | null): Promise<Student> {
    const input = { params: { studentId: of.id }, body: { instrumentId, on: studioDay() } }
    const saved = await outbox.send('students.lend', input, { what: `the loan of ${of.name}` })
    studio.takeStudent(saved)
    return saved
  }

  async function lend(instrumentId: string | null) {
    const of = student.value
    if (!of) return
    const had = of.instrument
    const [from, to] = [had?.id ?? before, instrumentId]
    before = from
    const { instrument } = await setLoan(of, instrumentId)
    const said = instrument
      ? `${instrument.label} is lent to ${of.name}.`
      : `${had?.label} is back in the cupboard.`
    notices.say(said, {
      label: UNDO,
      run: async () => {
        const { instrument: again } = await setLoan(of, had?.id ?? null)
        notices.say(
          again ? `${of.name} has ${again.label} again.` : `${instrument?.label} is back in the cupboard.`,
        )
      },
    })
    if (from !== undefined && to !== null && from !== to)
      notices.say('Every tape moves with the new instrument.', {
        label: 'Old and new places',
        run: () => void router.push({ name: 'compare', query: { from, to } }),
      })
  }

  return {
    student,
    checks: checks.data,
    hasOlder,
    lend,

    async readOlder() {
      const read = checks.data.value ?? []
      const query = { offset: read.length, limit: CHECKS_AT_ONCE }
      const older = await call('checks.list', { params: { studentId: studentId.value }, query })
      isAll.value = older.length < CHECKS_AT_ONCE
      const known = new Set(read.map(({ id }) => id))
      checks.put([...read, ...older.filter(({ id }) => !known.has(id))])
    },

    async add(sizeId: string, label: string) {
      if (!student.value) return
      const body = { family: student.value.family, sizeId, label }
      const instrument = await outbox.send(
        'instruments.create',
        { body },
        { what: `the instrument ${label}` },
      )
      await lend(instrument.id)
    },

    decide: useDecide((saved) =>
      checks.put((checks.data.value ?? []).map((check) => (check.id === saved.id ? saved : check))),
    ),

    async removeCheck(check: Check) {
      await call('checks.remove', { params: { checkId: check.id } })
      checks.put((checks.data.value ?? []).filter((c) => c.id !== check.id))
      await studio.loadStudent(studentId.value)
      notices.say('The check is out of the file.', {
        label: UNDO,
        run: async () => {
          await call('checks.restore', { params: { checkId: check.id } })
          await Promise.all([loaded.reload(), checks.reload()])
        },
      })
    },

    async removeStudent() {
      const of = student.value
      if (!of) return
      await call('students.remove', { params: { studentId: of.id } })
      studio.takeStudent({ ...of, removedAt: new Date().toISOString() })
      await router.push({ name: 'students' })
      notices.say(`${of.name} is off the roster.`, {
        label: UNDO,
        run: async () => {
          studio.takeStudent(await call('students.restore', { params: { studentId: of.id } }))
          await router.push({ name: 'student', params: { studentId: of.id } })
        },
      })
    },
  }
}
