import { computed, ref, watch, type Ref } from 'vue'
import { useKeptCheck } from '../../stores/kept-check'
import { useLesson } from '../../stores/lesson'
import { useStudio } from '../../stores/studio'

/** Who has the lesson after this one, asked for once a check is kept: until then nobody goes on. */
export function useNextLesson() {
  const studio = useStudio()
  const lesson = useLesson()
  const keptCheck = useKeptCheck()
  const ids: Ref<readonly string[]> = ref([])
  watch(
    () => keptCheck.kept?.check.id,
    async (id) => {
      if (id !== undefined) ids.value = (await studio.nextLessons(new Date().getDay())).ids
    },
    { immediate: true },
  )
  const next = computed(() => {
    const here = ids.value.indexOf(lesson.studentId)
    return keptCheck.kept && here >= 0 ? studio.student(ids.value[here + 1] ?? '') : undefined
  })
  return {
    next,
    goOn() {
      if (next.value) lesson.begin(next.value.id)
    },
  }
}
