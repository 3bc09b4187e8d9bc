import { defineStore } from 'pinia'
import { shallowRef, watch } from 'vue'
import type { Check } from '#contracts'
import type { DraftTexts } from './drafts'
import { useLesson } from './lesson'

/** A check that was just kept, with the sheet that it was typed on and what stood there. */
export interface KeptCheck {
  readonly check: Check
  readonly sheet: string
  readonly texts: DraftTexts
}

/** The verdict is read aloud after it is kept: it stays until the next note is typed or the next student comes. */
export const useKeptCheck = defineStore('kept-check', () => {
  const lesson = useLesson()
  const kept = shallowRef<KeptCheck>()
  const forget = () => void (kept.value = undefined)
  watch(() => lesson.studentId, forget)
  return {
    kept,
    forget,
    show(of: KeptCheck) {
      // Somebody else may be in the lesson by the time that the server has it.
      if (of.check.studentId === lesson.studentId) kept.value = of
    },
  }
})
