import { ref, type Ref } from 'vue'
import { scrollSoon } from './useNextFrame'
import type { Shortcut } from './useShortcuts'

/** A list walked with the arrow keys: which row is meant, and the keys that move it. One that scrolls itself gives no `table`. */
export function useRowKeys(count: Ref<number>, table?: Ref<HTMLElement | undefined>) {
  const at = ref(0)

  function move(by: number) {
    if (count.value === 0) return
    at.value = Math.min(count.value - 1, Math.max(0, at.value + by))
    if (table) scrollSoon(() => table.value?.querySelector('[aria-current="true"]'))
  }

  const shortcuts: Shortcut[] = [
    { key: 'ArrowDown', does: 'Next row', run: () => move(1) },
    { key: 'ArrowUp', does: 'Row before', run: () => move(-1) },
    { key: 'PageDown', does: 'Ten rows on', run: () => move(10) },
    { key: 'PageUp', does: 'Ten rows back', run: () => move(-10) },
  ]
  return { at, shortcuts }
}

/** By which column a list is ordered; the same column again turns it round. */
export function useRowSort<Key extends string>(first: Key) {
  const sort = ref<{ key: Key; direction: 'up' | 'down' }>({ key: first, direction: 'up' })
  return {
    sort: sort as Ref<{ key: Key; direction: 'up' | 'down' }>,
    sortBy(key: string) {
      const isSame = sort.value.key === key
      sort.value = { key: key as never, direction: isSame && sort.value.direction === 'up' ? 'down' : 'up' }
    },
  }
}
