import { useResizeObserver } from '@vueuse/core'
import { ref, type Ref } from 'vue'

/**
 * How wide an element is, px, told by the browser once it has laid out the page; `first` until then. Asking for it as soon as
 * the element is there would have the page laid out a second time in that frame.
 */
export function useWidth(element: Ref<HTMLElement | undefined>, first = 0): Ref<number> {
  const width = ref(first)
  useResizeObserver(element, ([entry]) => {
    if (entry) width.value = entry.contentRect.width
  })
  return width
}
