import { onScopeDispose, shallowRef, watch, type Ref } from 'vue'
import type { Alternative } from '#core'
import type { AlternativesOrder, AlternativesReport } from './alternatives'
import AlternativesWorker from './alternatives.worker?worker'

/** Other fingerings of a line, looked for beside the page; those of an earlier line are not shown for a later one. */
export function useAlternatives(order: Ref<Omit<AlternativesOrder, 'id'> | undefined>) {
  const alternatives = shallowRef<readonly Alternative[]>([])
  const worker = new AlternativesWorker()
  let newest = 0
  worker.onmessage = ({ data }: MessageEvent<AlternativesReport>) => {
    if (data.id === newest) alternatives.value = data.alternatives
  }
  watch(
    () => JSON.stringify(order.value),
    (asked) => {
      newest++
      alternatives.value = []
      if (asked) worker.postMessage({ ...(JSON.parse(asked) as Omit<AlternativesOrder, 'id'>), id: newest })
    },
    { immediate: true },
  )
  onScopeDispose(() => worker.terminate())
  return alternatives
}
