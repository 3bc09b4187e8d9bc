import { onBeforeUnmount, onMounted, ref, type Ref } from 'vue'

/**
 * Counts from 0 to `last`, one a frame, once the page is there: its parts come one after the other, and no frame waits for
 * all of them.
 */
export function useStages(last: number): Ref<number> {
  const stage = ref(0)
  let asked = 0
  function next() {
    stage.value++
    if (stage.value < last) asked = requestAnimationFrame(next)
  }
  onMounted(() => {
    asked = requestAnimationFrame(next)
  })
  onBeforeUnmount(() => cancelAnimationFrame(asked))
  return stage
}
