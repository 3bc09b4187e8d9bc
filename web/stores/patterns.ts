import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, markRaw } from 'vue'
import { FIRST_CHOICE, useAtlas, type AtlasChoice } from '../features/patterns/useAtlas'
import { fingertipOf } from '../features/patterns/places'
import { useMastery } from '../features/patterns/useMastery'
import { useBenchStore } from './bench'
import { useLesson } from './lesson'
import { useStudio } from './studio'

/** The Patterns room, for whatever lies on the bench and whoever is in the lesson. It stays while one looks elsewhere. */
export const usePatterns = defineStore('patterns', () => {
  const benchStore = useBenchStore()
  const { bench } = benchStore
  const lesson = useLesson()
  const studio = useStudio()
  const choice = useSessionStorage<AtlasChoice>(
    'jadefell.atlas',
    { ...FIRST_CHOICE },
    { mergeDefaults: true },
  )

  /** Whose hand it is: of the lesson, or of whoever has the instrument on the bench. */
  const student = computed(() => {
    const holderId = benchStore.instrument?.holder?.studentId
    return lesson.instrumentId === '' ? lesson.student : studio.students?.find((s) => s.id === holderId)
  })
  const mastery = markRaw(useMastery(student))
  // Their refs stay refs: what the store hands out is not unwrapped.
  const atlas = markRaw(useAtlas(choice, bench.family, bench.tuning, mastery.secure))
  const fingertip = computed(() => fingertipOf(student.value, new Date().getFullYear()))

  return { choice, student, mastery, atlas, bench, benchStore, fingertip }
})
