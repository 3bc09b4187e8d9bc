import { computed, ref, shallowRef, watch } from 'vue'
import type { Student } from '#contracts'
import { useStudio } from '../../stores/studio'
import { useLessonDay } from '../../stores/useLessonDay'
import { useToday } from '../../stores/useToday'
import { useSettled } from '../../ui/useSettled'
import { instrumentKind } from '../../words/trade'

const MOST_FOUND = 12

/** Who may be meant: those of today’s lessons, or whoever is called as it is typed, anybody of the studio. */
export function useWhom() {
  const studio = useStudio()
  const { day, rows, isToday, isKnown } = useLessonDay(useToday())
  const text = ref('')
  const isFinding = computed(() => text.value.trim() !== '')
  const foundIds = shallowRef<readonly string[]>([])
  const foundFor = ref('')
  watch(useSettled(text), async (q) => {
    if (q.trim() === '') return
    const { rows: ids } = await studio.findStudents({ q, limit: MOST_FOUND })
    if (q !== text.value) return
    foundIds.value = ids
    foundFor.value = q
  })
  return {
    text,
    isFinding,
    /** Whether those shown are of what is typed, and not of the letters before. */
    isFound: computed(() => !isFinding.value || foundFor.value === text.value),
    shown: computed<readonly Student[]>(() =>
      isFinding.value
        ? foundIds.value.flatMap((id) => studio.student(id) ?? [])
        : rows.value.map((row) => row.student),
    ),
    day,
    isToday,
    isKnown,
    hasLessons: computed(() => rows.value.length > 0),
  }
}

/** What somebody plays, in a few words. */
export function playedBy({ instrument }: Student): string {
  return instrument ? instrumentKind(instrument.family, instrument.sizeId) : 'no instrument yet'
}
