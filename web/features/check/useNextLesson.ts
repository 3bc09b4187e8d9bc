import { computed, ref, watch } from 'vue'
import { useKeptCheck } from '../../stores/kept-check'
import { useLesson } from '../../stores/lesson'
import { useStudio } from '../../stores/studio'

/** Who has the lesson after this one, asked for once a check is kept: until then nobody goes on. */
export function useNextLesson() {
  const studio = useStudio()
  const lesson = useLesson()
  const keptCheck = useKeptCheck()
  const nextId = ref('')
  watch(
    () => keptCheck.kept?.check.id,
    async (id) => {
      nextId.value = ''
      if (id !== undefined) nextId.value = (await after(lesson.studentId)) ?? ''
    },
    { immediate: true },
  )
  const next = computed(() => (keptCheck.kept ? studio.student(nextId.value) : undefined))

  /** Whose lesson follows this student's, page by page; undefined after the last, or for somebody who has none that day. */
  async function after(studentId: string): Promise<string | undefined> {
    let isFound = false
    for (let offset = 0; ;) {
      const { ids, total } = await studio.nextLessons(new Date().getDay(), { offset })
      const here = ids.indexOf(studentId)
      if (isFound || here >= 0) {
        const following = ids[isFound ? 0 : here + 1]
        if (following !== undefined) return following
        isFound = true
      }
      offset += ids.length
      if (ids.length === 0 || offset >= total) return undefined
    }
  }
  return {
    next,
    goOn() {
      if (next.value) lesson.begin(next.value.id)
    },
  }
}
