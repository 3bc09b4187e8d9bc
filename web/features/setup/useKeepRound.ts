import { computed, shallowRef, watch, type Ref } from 'vue'
import type { SetupRound, Student } from '#contracts'
import { call } from '../../api/client'
import { useDrafts } from '../../stores/drafts'
import { UNDO, useNotices } from '../../stores/notices'
import { useOutbox, Withdrawn } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'
import type { RoundAnswers } from './useRoundAnswers'

/** Keeps a round in the file of its student, with a way back. */
export function useKeepRound(
  student: Ref<Student | undefined>,
  { sheet, texts, answers, draftOf }: RoundAnswers,
  onKept: () => void,
) {
  const drafts = useDrafts()
  const outbox = useOutbox()
  const notices = useNotices()
  const studio = useStudio()

  /** The round that was just kept, as long as the same student stands there and it is not undone. */
  const kept = shallowRef<SetupRound>()
  watch(
    () => student.value?.id,
    () => (kept.value = undefined),
  )

  async function keep(): Promise<SetupRound | undefined> {
    const of = student.value
    if (!of || answers.value.length === 0 || outbox.isSending(sheet.value)) return undefined
    const draft = sheet.value
    const before = { ...texts.value }
    const input = { params: { studentId: of.id }, body: draftOf(of) }
    drafts.markSent(draft, input)
    try {
      const round = await outbox.send('setup.create', input, { what: `the setup of ${of.name}`, draft })
      drafts.clear(draft)
      onKept()
      await studio.loadStudent(of.id)
      notices.say(`The setup is in the file of ${of.name}.`, {
        label: UNDO,
        run: async () => {
          await call('setup.remove', { params: { roundId: round.id } })
          if (kept.value?.id === round.id) kept.value = undefined
          for (const [field, text] of Object.entries(before)) drafts.type(draft, field, text)
          await studio.loadStudent(of.id)
          notices.say('Taken out of the file; the answers are here again.')
        },
      })
      if (round.painId === null && student.value?.id === of.id) kept.value = round
      return kept.value
    } catch (error) {
      if (error instanceof Withdrawn) return undefined
      throw error
    }
  }

  return { keep, kept, isKeeping: computed(() => outbox.isSending(sheet.value)) }
}
