/**
 * Keys pressed while the next page is on its way are kept and given to it when it is there: whoever types fast loses none,
 * and the page that is left does nothing more.
 */
const kept: string[] = []
let isHolding = false

function onKey(event: KeyboardEvent) {
  if (!isHolding || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key.length > 1 && event.key !== 'Enter' && event.key !== 'Escape') return
  event.preventDefault()
  event.stopImmediatePropagation()
  kept.push(event.key)
}

/** Begins to keep keys. */
export function holdKeys(): void {
  if (!isHolding) document.addEventListener('keydown', onKey, { capture: true })
  isHolding = true
}

/** The page is there, with its focus set: it gets what was kept, unless a key leads on to another. */
export function releaseKeys(): void {
  isHolding = false
  document.removeEventListener('keydown', onKey, { capture: true })
  while (kept.length > 0 && !isHolding) press(kept.shift()!)
}

/** As a key pressed now: to what has the focus, which takes a letter as typed where nobody else wants it. */
function press(key: string) {
  const target = document.activeElement ?? document.body
  const isFree = target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
  if (!isFree) return
  if (key === 'Enter' && target.matches('button, a')) (target as HTMLElement).click()
  if (key.length > 1 || !(target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)) return
  target.setRangeText(key, target.selectionStart ?? 0, target.selectionEnd ?? 0, 'end')
  target.dispatchEvent(new Event('input', { bubbles: true }))
}
