import { computed, type Ref } from 'vue'
import { writeWav } from '#core'
import type { Check, CheckDraft, Student } from '#contracts'
import { call, upload } from '../../api/client'
import { useDrafts } from '../../stores/drafts'
import { useKeptCheck, type KeptCheck } from '../../stores/kept-check'
import { UNDO, useNotices } from '../../stores/notices'
import { useSettings } from '../../stores/settings'
import { useOutbox, Withdrawn } from '../../stores/outbox'
import { useStudio } from '../../stores/studio'

/** The sound of a take, while it is in memory. */
export interface TakeSound {
  readonly samples: Float32Array
  readonly sampleRateHz: number
}

export type KeepState = 'idle' | 'keeping' | 'waiting'

/**
 * Keeps a check: its own sheet is cleared once the server has said that it is kept, whatever sheet is looked at by then, and
 * its verdict stays in sight. While the server is away the outbox has it; a sheet that is changed meanwhile is another save.
 */
export function useKeepCheck(student: Ref<Student | undefined>, sheet: Ref<string>) {
  const outbox = useOutbox()
  const drafts = useDrafts()
  const studio = useStudio()
  const settings = useSettings()
  const notices = useNotices()
  const keptCheck = useKeptCheck()
  const state = computed<KeepState>(() => {
    if (!outbox.isSending(sheet.value)) return 'idle'
    return outbox.isAway ? 'waiting' : 'keeping'
  })

  /** Stored where the studio stores sound and the student's file says that it may. */
  const keepsSound = computed(
    () => settings.settings?.keepsSound === true && (student.value?.soundConsent ?? null) !== null,
  )

  async function keep({
    sound,
    ...body
  }: CheckDraft & { sound?: TakeSound | undefined }): Promise<Check | undefined> {
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
      if (sound && keepsSound.value) void keepSound(of, check, sound)
      notices.say(`Kept in the file of ${of.name}.`, { label: UNDO, run: () => takeOut(kept) })
      return check
    } catch (error) {
      if (error instanceof Withdrawn) return undefined
      throw error
    }
  }

  /** Beside its check; a check is kept whether its sound is or not. */
  async function keepSound({ name }: Student, check: Check, { samples, sampleRateHz }: TakeSound) {
    try {
      await upload('check', check.id, new Blob([writeWav(samples, sampleRateHz)], { type: 'audio/wav' }))
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error)
      notices.say(`The check of ${name} is kept, its sound is not: ${why}`)
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
    keepsSound,
    /** What is typed now is another save than the one on its way, and other notes than those of the verdict that stays. */
    change() {
      outbox.withdraw(sheet.value)
      keptCheck.forget()
    },
  }
}
