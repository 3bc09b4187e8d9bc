/**
 * Keys pressed while the next page or a dialog is on its way are kept and given to it when it is there: whoever types fast
 * loses none, and the page that is left does nothing more.
 */
/** Beside letters and signs; Tab and what the browser does with the others stays with it. */
const KEPT = /^(Enter|Escape|Backspace|Arrow.*|Page.*)$/
const kept: KeyboardEventInit[] = []
/** What is on its way. */
const awaited = new Set<string>()
let isGiving = false

function onKey(event: KeyboardEvent) {
  // What is given was kept before: only what somebody presses now is to wait behind it.
  if (isPressing || event.altKey) return
  const { key, ctrlKey, metaKey } = event
  // What asks for the palette waits like the letters behind it; the browser keeps its other keys.
  if ((ctrlKey || metaKey) && key !== 'k') return
  if (key.length > 1 && !KEPT.test(key)) return
  event.preventDefault()
  event.stopImmediatePropagation()
  kept.push({ key, ctrlKey, metaKey })
}

/** Begins to keep keys for what is on its way. */
export function holdKeys(coming = 'page'): void {
  awaited.add(coming)
  document.addEventListener('keydown', onKey, { capture: true })
}

/** It is there, with its focus set: it gets what was kept, one after the other, until a key leads on to another. */
export async function releaseKeys(arrived = 'page'): Promise<void> {
  awaited.delete(arrived)
  if (isGiving || awaited.size > 0) return
  isGiving = true
  while (kept.length > 0 && awaited.size === 0) {
    press(kept.shift()!)
    // Where it leads on, the way there begins some moments after the key.
    await new Promise((resolve) => setTimeout(resolve))
  }
  isGiving = false
  if (awaited.size === 0) document.removeEventListener('keydown', onKey, { capture: true })
}

let isPressing = false

/** As a key pressed now: to what has the focus, which takes a letter as typed where nobody else wants it. */
function press(pressed: KeyboardEventInit) {
  const { key = '', ctrlKey, metaKey } = pressed
  const target = document.activeElement ?? document.body
  isPressing = true
  const isFree = target.dispatchEvent(
    new KeyboardEvent('keydown', { ...pressed, bubbles: true, cancelable: true }),
  )
  isPressing = false
  if (!isFree || ctrlKey || metaKey) return
  // The browser closes a dialog at a key of the keyboard’s own alone.
  if (key === 'Escape')
    target.closest('dialog[open]')?.dispatchEvent(new Event('cancel', { cancelable: true }))
  if (key === 'Enter' && target.matches('button, a')) (target as HTMLElement).click()
  if (key === 'Enter' && target instanceof HTMLInputElement) submitBy(target)
  if (!(target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)) return
  if (key.length > 1 && key !== 'Backspace') return
  const [from, to] = [target.selectionStart ?? 0, target.selectionEnd ?? 0]
  if (key !== 'Backspace') target.setRangeText(key, from, to, 'end')
  else target.setRangeText('', from === to ? Math.max(0, from - 1) : from, to, 'end')
  target.dispatchEvent(new Event('input', { bubbles: true }))
}

/** As the browser does at an Enter in a field: by the form’s button, and not while that is shut. */
function submitBy({ form }: HTMLInputElement) {
  const button = form?.querySelector<HTMLButtonElement>('button:not([type]), [type=submit]')
  if (form && !button?.disabled) form.requestSubmit(button)
}
