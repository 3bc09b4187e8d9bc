import { onScopeDispose, shallowRef, watch, type ShallowRef } from 'vue'

/** What `source` says, a frame late: for large parts of a page that need not be there in the same frame as what was asked for. */
export function useNextFrame<T>(source: () => T): ShallowRef<T> {
  const shown = shallowRef(source()) as ShallowRef<T>
  let asked = 0
  watch(source, () => {
    cancelAnimationFrame(asked)
    asked = requestAnimationFrame(() => (shown.value = source()))
  })
  onScopeDispose(() => cancelAnimationFrame(asked))
  return shown
}

/**
 * Brings a row into sight once what was drawn with it is laid out: asked at once, the browser would lay out the page a second
 * time in the frame of the key.
 */
export function scrollSoon(row: () => Element | null | undefined): void {
  requestAnimationFrame(() => requestAnimationFrame(() => row()?.scrollIntoView({ block: 'nearest' })))
}
