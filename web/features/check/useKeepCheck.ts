import { computed, type Ref } from 'vue'
import type { Check, CheckDraft, Student } from '#contracts'
import { call } from '../../api/client'
import { useDrafts } from '../../stores/drafts'
import { useKeptCheck, type KeptCheck } from '../../stores/kept-check'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox, Withdrawn } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'

export type KeepState = 'idle' | 'keeping' | 'waiting'

/**
 * Keeps a check: its own sheet is cleared once the server has said that it is kept, whatever sheet is looked at by then, and
 * its verdict stays in sight. While the server is away the outbox has it; a sheet that is changed meanwhile is another save.
 */
export function useKeepCheck(student: Ref<Student | undefined>, sheet: Ref<string>) {
  const outbox = useOutbox()
  const drafts = useDrafts()
  const studio = useStudio()
  const notices = useNotices()
  const keptCheck = useKeptCheck()
  const state = computed<KeepState>(() => {
    if (!outbox.isSending(sheet.value)) return 'idle'
    return outbox.isAway ? 'waiting' : 'keeping'
  })

  async function keep(body: CheckDraft): Promise<Check | undefined> {
    const of = student.value
    const draft = sheet.value
    if (!of || state.value !== 'idle') return undefined
    const input = { params: { studentId: of.id }, body }
    const texts = drafts.textsOf(draft)
    drafts.markSent(draft, input)
    try {
      const check = await outbox.send('checks.create', input, { what: `the check of ${of.name}`, draft })
      void studio.loadStudent(of.id)
      const kept = { check, sheet: draft, texts }
      keptCheck.show(kept)
      notices.say(`Kept in the file of ${of.name}.`, { label: UNDO, run: () => takeOut(kept) })
      return check
    } catch (error) {
      if (error instanceof Withdrawn) return undefined
      throw error
    }
  }

  /** The readings come back with it, where nothing else was typed in their place. */
  async function takeOut(of: KeptCheck) {
    await call('checks.remove', { params: { checkId: of.check.id } })
    if (keptCheck.kept?.check.id === of.check.id) keptCheck.forget()
    const isFree = Object.keys(drafts.textsOf(of.sheet)).length === 0
    if (isFree) for (const [field, text] of Object.entries(of.texts)) drafts.type(of.sheet, field, text)
    await studio.loadStudent(of.check.studentId)
    notices.say(`Taken out of the file${isFree ? '; the readings are on the sheet again' : ''}.`)
  }

  return {
    state,
    keep,
    /** What is typed now is another save than the one on its way, and other notes than those of the verdict that stays. */
    change() {
      outbox.withdraw(sheet.value)
      keptCheck.forget()
    },
  }
}
