import { computed, ref, watch, type Ref } from 'vue'
import type { MasteryKind, MasteryState } from '#core'
import type { Mastery, Student } from '#contracts'
import { call } from '../../api/client'
import { saveSurely } from '../../api/saving'

/** How well one student has each pattern and position, and the teacher's word on it. */
export function useMastery(student: Ref<Student | undefined>) {
  const marks = ref<readonly Mastery[]>([])

  watch(
    () => student.value?.id,
    async (studentId) => {
      marks.value = []
      if (studentId === undefined) return
      const kept = await call('mastery.list', { params: { studentId } })
      // Somebody else may be in the lesson by now.
      if (student.value?.id === studentId) marks.value = kept
    },
    { immediate: true },
  )

  const states = computed(() => new Map(marks.value.map((m) => [`${m.kind} ${m.item}`, m.state])))
  const itemsIn = (kind: MasteryKind, ...wanted: MasteryState[]) =>
    new Set(marks.value.filter((m) => m.kind === kind && wanted.includes(m.state)).map((m) => m.item))

  return {
    marks,
    secure: computed(() => (student.value ? itemsIn('pattern', 'secure') : undefined)),
    stateOf: (kind: MasteryKind, item: string): MasteryState =>
      states.value.get(`${kind} ${item}`) ?? 'not_met',

    async mark(kind: MasteryKind, item: string, state: MasteryState): Promise<void> {
      const of = student.value
      if (!of) return
      const kept = await saveSurely('mastery.mark', {
        params: { studentId: of.id },
        body: { marks: [{ kind, item, state }] },
      })
      if (student.value?.id === of.id) marks.value = kept
    },
  }
}

export type MasteryFile = ReturnType<typeof useMastery>
