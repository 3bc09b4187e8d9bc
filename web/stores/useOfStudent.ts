import { useLocalStorage } from '@vueuse/core'
import { computed, type Ref, type WritableComputedRef } from 'vue'

/**
 * A choice that belongs to whoever is in the lesson: nobody else has it, and it is there when they come again. What is as usual
 * is not written down.
 *
 * @param key under which this browser keeps it
 */
export function useOfStudent<T>(
  key: string,
  studentId: Ref<string | undefined>,
  usual: T,
): WritableComputedRef<T> {
  const chosen = useLocalStorage<Record<string, T>>(key, {})
  const id = computed(() => studentId.value ?? 'nobody')
  return computed({
    get: () => chosen.value[id.value] ?? usual,
    set: (value) => {
      const { [id.value]: _, ...others } = chosen.value
      chosen.value = value === usual ? others : { ...others, [id.value]: value }
    },
  })
}
