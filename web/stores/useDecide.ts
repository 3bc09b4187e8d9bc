import type { Check, DecisionDraft } from '#contracts'
import { call } from '../api/client'
import { UNDO, useNotices } from './notices'
import { useOutbox } from './outbox'
import { useStudio } from './studio'

/** What the teacher says to a verdict, now or long after; `shown` takes the check as it stands then. */
export function useDecide(shown: (saved: Check) => void) {
  const outbox = useOutbox()
  const notices = useNotices()
  const studio = useStudio()

  function put(saved: Check) {
    shown(saved)
    void studio.loadStudent(saved.studentId)
  }

  /** What was said before stands again, or nothing. */
  async function undo({ id, decision }: Check) {
    const params = { checkId: id }
    if (!decision) return put(await call('checks.undecide', { params }))
    const { says, reason, sentence, workOn, isMended = false } = decision
    put(await call('checks.decide', { params, body: { says, reason, sentence, workOn, isMended } }))
  }

  return async (check: Check, body: DecisionDraft) => {
    const input = { params: { checkId: check.id }, body }
    put(await outbox.send('checks.decide', input, { what: 'what you say to the verdict' }))
    notices.say(body.says === 'accepted' ? 'Kept with the verdict.' : 'The verdict is overruled.', {
      label: UNDO,
      run: () => undo(check),
    })
  }
}
