import { useSessionStorage } from '@vueuse/core'
import { defineStore, storeToRefs } from 'pinia'
import { computed, markRaw } from 'vue'
import { techniqueOf } from '#core'
import { useBench } from '../../stores/bench'
import { useLesson } from '../../stores/lesson'
import { useMasteryOf } from '../../stores/mastery'
import { useSettings } from '../../stores/settings'
import { useStudio } from '../../stores/studio'
import { fingertipOf } from './fingertip'
import { FIRST_CHOICE, useAtlas, type AtlasChoice } from './useAtlas'

/** The Patterns room, for whatever lies on the bench and whoever is in the lesson. It stays while one looks elsewhere. */
export const usePatterns = defineStore('patterns', () => {
  const bench = useBench()
  const { family, tuning } = storeToRefs(bench)
  const lesson = useLesson()
  const studio = useStudio()
  const settings = useSettings()
  const choice = useSessionStorage<AtlasChoice>(
    'jadefell.atlas',
    { ...FIRST_CHOICE },
    { mergeDefaults: true },
  )
  /** Whose hand it is: of the lesson, or of whoever has the instrument on the bench. */
  const student = computed(() => {
    const holderId = bench.instrument?.holder?.studentId
    return lesson.instrumentId === ''
      ? lesson.student
      : holderId === undefined
        ? undefined
        : studio.student(holderId)
  })
  /** A bass is held in 1-2-4 or with four fingers, as the student’s school has it. */
  const usualFrameId = computed(() =>
    techniqueOf(family.value.id).choosesFrame ? settings.schoolsOf(student.value).bass_fingering : '',
  )
  const mastery = markRaw(useMasteryOf(student))
  // Their refs stay refs: what the store hands out is not unwrapped.
  const atlas = markRaw(useAtlas(choice, family, tuning, mastery.secure, usualFrameId))
  const fingertip = computed(() =>
    fingertipOf(student.value, new Date().getFullYear(), family.value, bench.setup.sizeId),
  )
  return { choice, usualFrameId, student, mastery, atlas, fingertip }
})

export type Patterns = ReturnType<typeof usePatterns>
