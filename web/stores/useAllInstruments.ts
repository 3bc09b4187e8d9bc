import { computed, shallowRef, watch, type ComputedRef, type Ref } from 'vue'
import type { Instrument } from '#contracts'
import { useStudio, type CupboardQuery } from './studio'

/** Every instrument that a query finds, read anew when something is saved; undefined until all of them have come. */
export function useAllInstruments(query: Ref<CupboardQuery>): ComputedRef<readonly Instrument[] | undefined> {
  const studio = useStudio()
  const ids = shallowRef<readonly string[]>()
  let question = 0
  watch(
    [query, () => studio.saves],
    async () => {
      const of = ++question
      const found = await studio.allInstruments(query.value)
      if (of === question) ids.value = found
    },
    { immediate: true },
  )
  return computed(() => ids.value?.flatMap((id) => studio.instrument(id) ?? []))
}
