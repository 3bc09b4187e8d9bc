import { computed, ref, watch, type Ref } from 'vue'
import { useRouter } from 'vue-router'
import type { Check, Student } from '#contracts'
import { call } from '../../api/client'
import { useNotices } from '../../stores/notices'
import { useStudio } from '../../stores/studio'
import { isoDay } from '../../words/dates'

/** One student's file: the student as the studio knows them, the checks, and what can be done from the file. */
export function useStudentFile(studentId: Ref<string>) {
  const studio = useStudio()
  const notices = useNotices()
  const router = useRouter()
  const loaded = ref<Student>()
  const checks = ref<Check[]>()
  const student = computed(() => studio.students?.find((s) => s.id === studentId.value) ?? loaded.value)

  async function load() {
    const params = { studentId: studentId.value }
    loaded.value = undefined
    checks.value = undefined
    const [file, kept] = await Promise.all([
      studio.loadStudent(params.studentId),
      call('checks.list', { params }),
      studio.loadInstruments(),
    ])
    loaded.value = file
    checks.value = kept
  }
  watch(studentId, load, { immediate: true })

  /** What was taken back last: with the next one lent, every tape moves. */
  let before: string | undefined

  async function lend(instrumentId: string | null) {
    const [from, to] = [student.value?.instrument?.id ?? before, instrumentId]
    before = from
    const body = { instrumentId, on: isoDay(new Date()) }
    studio.takeStudent(await call('students.lend', { params: { studentId: studentId.value }, body }))
    await studio.loadInstruments()
    if (from !== undefined && to !== null && from !== to)
      notices.say('Every tape moves with the new instrument.', {
        label: 'Old and new places',
        run: () => void router.push({ name: 'compare', query: { from, to } }),
      })
  }

  return {
    student,
    checks,
    lend,

    async add(sizeId: string, label: string) {
      if (!student.value) return
      const { family } = student.value
      const instrument = await call('instruments.create', { body: { family, sizeId, label } })
      await lend(instrument.id)
      notices.say(`${instrument.label} is in the cupboard, and lent.`)
    },

    async removeCheck(check: Check) {
      await call('checks.remove', { params: { checkId: check.id } })
      checks.value = checks.value?.filter((c) => c.id !== check.id)
      await studio.loadStudent(studentId.value)
      notices.say('The check is out of the file.', {
        label: 'Undo',
        run: async () => {
          await call('checks.restore', { params: { checkId: check.id } })
          await load()
        },
      })
    },

    async removeStudent() {
      const of = student.value
      if (!of) return
      await call('students.remove', { params: { studentId: of.id } })
      await studio.loadStudents()
      await router.push({ name: 'students' })
      notices.say(`${of.name} is off the roster.`, {
        label: 'Undo',
        run: async () => {
          studio.takeStudent(await call('students.restore', { params: { studentId: of.id } }))
          await router.push({ name: 'student', params: { studentId: of.id } })
        },
      })
    },
  }
}
