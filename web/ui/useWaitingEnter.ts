import { watch, type Ref } from 'vue'

/**
 * Enter in a search field is about what is typed, not about what was found for the letters before: it waits until that is
 * found. Another letter takes it back.
 */
export function useWaitingEnter(text: Ref<string>, isFound: Ref<boolean>, run: () => void): () => void {
  let isWaiting = false
  watch(text, () => (isWaiting = false), { flush: 'sync' })
  watch(isFound, (found) => {
    if (!found || !isWaiting) return
    isWaiting = false
    run()
  })
  return () => {
    if (isFound.value) run()
    else isWaiting = true
  }
}
