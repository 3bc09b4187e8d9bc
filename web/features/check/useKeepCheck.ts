import { ref, type Ref } from 'vue'
import type { Check, CheckDraft, Student } from '#contracts'
import { call, callUntilAnswered } from '../../api/client'
import { useNotices } from '../../stores/notices'
import { useStudio } from '../../stores/studio'
import type { useReadings } from './useReadings'

export type KeepState = 'idle' | 'keeping' | 'waiting'

/**
 * Keeps a check: the sheet is cleared only once the server has said it is kept. While the server is away the same save
 * is sent again, with the same key, so it is kept once.
 */
export function useKeepCheck(student: Ref<Student | undefined>, sheet: ReturnType<typeof useReadings>) {
  const state = ref<KeepState>('idle')
  const studio = useStudio()
  const notices = useNotices()

  async function keep(draft: CheckDraft): Promise<Check | undefined> {
    const of = student.value
    if (!of || state.value !== 'idle') return undefined
    const pending = sheet.pending.value ?? { key: crypto.randomUUID(), body: draft }
    sheet.setPending(pending)
    state.value = 'keeping'
    try {
      const check = await callUntilAnswered(
        'checks.create',
        { params: { studentId: of.id }, body: pending.body },
        {
          idempotencyKey: pending.key,
          onWaiting: () => (state.value = 'waiting'),
          isWanted: () => student.value?.id === of.id && sheet.pending.value?.key === pending.key,
        },
      )
      sheet.clear()
      void studio.loadStudent(of.id)
      notices.say(`Kept in the file of ${of.name}.`, { label: 'Undo', run: () => takeOut(check) })
      return check
    } finally {
      state.value = 'idle'
    }
  }

  async function takeOut(check: Check) {
    await call('checks.remove', { params: { checkId: check.id } })
    await studio.loadStudent(check.studentId)
    notices.say('Taken out of the file.')
  }

  return { state, keep }
}
