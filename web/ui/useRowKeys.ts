import { ref, type Ref } from 'vue'
import { scrollSoon } from './useNextFrame'
import type { Shortcut } from './useShortcuts'

/** A list walked with the arrow keys: which row is meant, and the keys that move it. */
export function useRowKeys(count: Ref<number>, table: Ref<HTMLElement | undefined>) {
  const at = ref(0)

  function move(by: number) {
    if (count.value === 0) return
    at.value = Math.min(count.value - 1, Math.max(0, at.value + by))
    scrollSoon(() => table.value?.querySelector('[aria-current="true"]'))
  }

  const shortcuts: Shortcut[] = [
    { key: 'ArrowDown', does: 'Next row', run: () => move(1) },
    { key: 'ArrowUp', does: 'Row before', run: () => move(-1) },
  ]
  return { at, shortcuts }
}
