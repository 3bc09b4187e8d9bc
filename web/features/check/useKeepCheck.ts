import { computed, type Ref } from 'vue'
import type { Check, CheckDraft, Student } from '#contracts'
import { call } from '../../api/client'
import { useDrafts } from '../../stores/drafts'
import { useNotices } from '../../stores/notices'
import { useOutbox, Withdrawn } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'

export type KeepState = 'idle' | 'keeping' | 'waiting'

/**
 * Keeps a check: its own sheet is cleared once the server has said that it is kept, whatever sheet is looked at by then.
 * While the server is away the outbox has it; a sheet that is changed meanwhile is another save.
 */
export function useKeepCheck(student: Ref<Student | undefined>, sheet: Ref<string>) {
  const outbox = useOutbox()
  const drafts = useDrafts()
  const studio = useStudio()
  const notices = useNotices()
  const state = computed<KeepState>(() => {
    if (!outbox.isSending(sheet.value)) return 'idle'
    return outbox.isAway ? 'waiting' : 'keeping'
  })

  async function keep(body: CheckDraft): Promise<Check | undefined> {
    const of = student.value
    const draft = sheet.value
    if (!of || state.value !== 'idle') return undefined
    const input = { params: { studentId: of.id }, body }
    drafts.markSent(draft, input)
    try {
      const check = await outbox.send('checks.create', input, { what: `the check of ${of.name}`, draft })
      void studio.loadStudent(of.id)
      notices.say(`Kept in the file of ${of.name}.`, { label: 'Undo', run: () => takeOut(check) })
      return check
    } catch (error) {
      if (error instanceof Withdrawn) return undefined
      throw error
    }
  }

  async function takeOut(check: Check) {
    await call('checks.remove', { params: { checkId: check.id } })
    await studio.loadStudent(check.studentId)
    notices.say('Taken out of the file.')
  }

  return {
    state,
    keep,
    /** What is typed now is another save than the one on its way. */
    change: () => outbox.withdraw(sheet.value),
  }
}
