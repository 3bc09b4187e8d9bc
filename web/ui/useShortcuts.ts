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
    if (isFor(event.target, event.key) || openDialogs.size > 0) return
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

/** Inputs that take no letters: they have a few keys of their own and leave the rest to the page. */
const OWN_KEYS: Record<string, RegExp> = {
  checkbox: /^ $/,
  radio: /^( |Arrow.*)$/,
  range: /^(Arrow|Page|Home|End)/,
}

/** Whether a key belongs to what has the focus: somebody types, ticks a box, presses a button. */
function isFor(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false
  const ownKeys = target instanceof HTMLInputElement ? OWN_KEYS[target.type] : undefined
  if (ownKeys) return ownKeys.test(key)
  if (target.matches('button, a, summary')) return key === 'Enter' || key === ' '
  return target.matches('input, textarea, select') || target.isContentEditable
}
