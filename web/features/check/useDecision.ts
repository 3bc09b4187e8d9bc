import type { DecisionDraft } from '#contracts'
import { call } from '../../api/client'
import { useKeptCheck, type KeptCheck } from '../../stores/kept-check'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'

/** What the teacher says to the verdict that was kept last. */
export function useDecision() {
  const keptCheck = useKeptCheck()
  const outbox = useOutbox()
  const notices = useNotices()
  const studio = useStudio()

  function show(of: KeptCheck, check: KeptCheck['check']) {
    if (keptCheck.kept?.check.id === check.id) keptCheck.show({ ...of, check })
    void studio.loadStudent(check.studentId)
  }

  async function undecide(of: KeptCheck) {
    show(of, await call('checks.undecide', { params: { checkId: of.check.id } }))
  }

  return {
    async decide(body: DecisionDraft) {
      const of = keptCheck.kept
      if (!of) return
      const input = { params: { checkId: of.check.id }, body }
      show(of, await outbox.send('checks.decide', input, { what: 'what you say to the verdict' }))
      notices.say(body.says === 'accepted' ? 'Kept with the verdict.' : 'The verdict is overruled.', {
        label: UNDO,
        run: () => undecide(of),
      })
    },
  }
}
