import { onBeforeUnmount, onMounted, readonly, shallowRef, useId, watch, type Ref } from 'vue'
import { holdKeys, releaseKeys } from './keysOnTheWay'
import { isField, isFor, takesOf } from './typing'

export interface Shortcut {
  /** As `KeyboardEvent.key` has it. */
  readonly key: string
  readonly does: string
  readonly run: () => void
}

interface Group {
  readonly title: string
  readonly shortcuts: readonly Shortcut[]
}

const active: Group[] = []

/** All keys that work now, by the part of the page that brought them, for the list behind `?`. */
export function activeShortcuts(): readonly Group[] {
  return active
}

/**
 * Plain keys of a page while it is shown. In a field they act where the field cannot take them, Escape leaves it, and what
 * neither can use is refused in sight; while a dialog is open they keep quiet.
 */
export function useShortcuts(title: string, shortcuts: readonly Shortcut[]): void {
  const group = { title, shortcuts }
  onMounted(() => {
    if (active.length === 0) document.addEventListener('keydown', onKey)
    active.push(group)
  })
  onBeforeUnmount(() => {
    active.splice(active.indexOf(group), 1)
    if (active.length === 0) document.removeEventListener('keydown', onKey)
  })
}

function onKey(event: KeyboardEvent) {
  refused.value = undefined
  if (event.defaultPrevented || event.isComposing || event.ctrlKey || event.metaKey || event.altKey) return
  if (openDialogs.size > 0) return
  const { target, key } = event
  if (key === 'Escape' && isField(target)) target.blur()
  else if (isFor(target, key)) return
  // What was brought last, by the page or its part, comes before what the shell has.
  else if (!runFirst(key) && !(isField(target) && refuse(target, key))) return
  event.preventDefault()
}

function runFirst(key: string): boolean {
  for (let i = active.length - 1; i >= 0; i--) {
    const shortcut = active[i]?.shortcuts.find((s) => s.key === key)
    if (shortcut) return (shortcut.run(), true)
  }
  return false
}

/** A key that did nothing, and where: said beside its field until the next key. */
export interface RefusedKey {
  readonly key: string
  readonly takes: string
  readonly field: HTMLElement
}
const refused = shallowRef<RefusedKey>()
export const refusedKey = readonly(refused)

function refuse(field: HTMLElement, key: string): boolean {
  const takes = takesOf(field)
  if (key.length > 1 || takes === undefined) return false
  refused.value = { key, takes, field }
  return true
}

const openDialogs = new Set<Ref<boolean>>()

/**
 * Keeps a page's keys quiet while a dialog is open; they work again at once when it closes, not after its fade. What is typed
 * from the moment it was asked for until `arrive` says that it has the focus waits for it.
 *
 * @returns to be called when the dialog has the focus
 */
export function useDialog(isOpen: Ref<boolean>): () => void {
  const coming = `dialog ${useId()}`
  const arrive = () => void releaseKeys(coming)
  watch(
    isOpen,
    (open) => {
      if (open) openDialogs.add(isOpen)
      if (open) holdKeys(coming)
      // What had the focus inside would go on taking keys while the dialog fades.
      else if (openDialogs.delete(isOpen) && document.activeElement instanceof HTMLElement)
        document.activeElement.blur()
      if (!open) arrive()
    },
    { immediate: true, flush: 'sync' },
  )
  onBeforeUnmount(() => {
    openDialogs.delete(isOpen)
    arrive()
  })
  return arrive
}
