import { defineStore } from 'pinia'
import { computed, onScopeDispose, shallowReactive, watch, type Ref } from 'vue'
import type { MasteryKind, MasteryState } from '#core'
import type { Mastery, Student } from '#contracts'
import { call } from '../api/client'
import { useOutbox } from './outbox'

/** How well students have patterns and positions: one word for every room that asks. */
export const useMastery = defineStore('mastery', () => {
  const outbox = useOutbox()
  const byStudent = shallowReactive(new Map<string, readonly Mastery[]>())
  /** A word is newer than any answer that was asked for before it. */
  let moment = 0
  const saidAt = new Map<string, number>()

  async function load(studentId: string): Promise<void> {
    const asked = ++moment
    const kept = await call('mastery.list', { params: { studentId } })
    if ((saidAt.get(studentId) ?? 0) < asked) byStudent.set(studentId, kept)
  }

  return {
    load,
    /** What is known of one student; nothing before it is loaded. */
    marksOf: (studentId: string): readonly Mastery[] => byStudent.get(studentId) ?? [],

    /** The teacher's word, shown at once, and again as the server kept it. */
    async say(
      { id, name }: { readonly id: string; readonly name: string },
      kind: MasteryKind,
      item: string,
      state: MasteryState,
    ): Promise<void> {
      saidAt.set(id, ++moment)
      const others = (byStudent.get(id) ?? []).filter((m) => m.kind !== kind || m.item !== item)
      byStudent.set(id, [...others, { kind, item, state, by: '', at: new Date().toISOString() }])
      const said = moment
      try {
        const kept = await outbox.send(
          'mastery.mark',
          { params: { studentId: id }, body: { marks: [{ kind, item, state }] } },
          { what: `what ${name} has learned` },
        )
        if (saidAt.get(id) === said) byStudent.set(id, kept)
      } catch (error) {
        // Not kept: what the server has is shown again.
        void load(id)
        throw error
      }
    },
    forget: () => byStudent.clear(),
  }
})

/** How well one student has each pattern and position, and the teacher's word on it. */
export function useMasteryOf(student: Ref<Student | undefined>) {
  const mastery = useMastery()
  const outbox = useOutbox()
  watch(
    () => student.value?.id,
    (id) => (id === undefined ? undefined : mastery.load(id)),
    { immediate: true },
  )
  onScopeDispose(outbox.onArrival(() => student.value && void mastery.load(student.value.id)))
  const marks = computed(() => (student.value ? mastery.marksOf(student.value.id) : []))
  const states = computed(() => new Map(marks.value.map((m) => [`${m.kind} ${m.item}`, m.state])))
  return {
    marks,
    /** Ids of the patterns that are secure; undefined where nobody is looked at. */
    secure: computed(() =>
      student.value
        ? new Set(marks.value.filter((m) => m.kind === 'pattern' && m.state === 'secure').map((m) => m.item))
        : undefined,
    ),
    stateOf: (kind: MasteryKind, item: string): MasteryState =>
      states.value.get(`${kind} ${item}`) ?? 'not_met',
    async mark(kind: MasteryKind, item: string, state: MasteryState): Promise<void> {
      if (student.value) await mastery.say(student.value, kind, item, state)
    },
  }
}

export type MasteryOf = ReturnType<typeof useMasteryOf>
