import { onBeforeUnmount, onMounted, watch, type Ref } from 'vue'

export interface Shortcut {
  /** As `KeyboardEvent.key` has it. */
  readonly key: string
  readonly does: string
  readonly run: () => void
}

const active: { shortcuts: readonly Shortcut[]; title: string }[] = []

/** All keys that work now, by the part of the page that brought them, for the list behind `?`. */
export function activeShortcuts(): readonly {
  readonly title: string
  readonly shortcuts: readonly Shortcut[]
}[] {
  return active
}

/** Plain keys of a page while it is shown. They keep quiet while somebody types or a dialog is open. */
export function useShortcuts(title: string, shortcuts: readonly Shortcut[]): void {
  const group = { title, shortcuts }
  function onKey(event: KeyboardEvent) {
    if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return
    if (isTyping(event.target) || openDialogs.size > 0) return
    const shortcut = shortcuts.find((s) => s.key === event.key)
    if (!shortcut) return
    event.preventDefault()
    shortcut.run()
  }
  onMounted(() => {
    active.push(group)
    document.addEventListener('keydown', onKey)
  })
  onBeforeUnmount(() => {
    active.splice(active.indexOf(group), 1)
    document.removeEventListener('keydown', onKey)
  })
}

const openDialogs = new Set<Ref<boolean>>()

/** Keeps a page's keys quiet while a dialog is open; they work again at once when it closes, not after its fade. */
export function useDialog(isOpen: Ref<boolean>): void {
  watch(isOpen, (open) => {
    if (open) openDialogs.add(isOpen)
    // What had the focus inside would go on taking keys while the dialog fades.
    else if (openDialogs.delete(isOpen) && document.activeElement instanceof HTMLElement)
      document.activeElement.blur()
  })
  onBeforeUnmount(() => openDialogs.delete(isOpen))
}

function isTyping(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement && (target.matches('input, textarea, select') || target.isContentEditable)
  )
}
