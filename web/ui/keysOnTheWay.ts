/**
 * Keys pressed while the next page is on its way are kept and given to it when it is there: whoever types fast loses none,
 * and the page that is left does nothing more.
 */
/** Beside letters and signs; Tab and what the browser does with the others stays with it. */
const KEPT = /^(Enter|Escape|Backspace|Arrow.*|Page.*)$/
const kept: string[] = []
let isHolding = false
let isGiving = false

function onKey(event: KeyboardEvent) {
  // What is given was kept before: only what somebody presses now is to wait behind it.
  if (isPressing || event.ctrlKey || event.metaKey || event.altKey) return
  if (event.key.length > 1 && !KEPT.test(event.key)) return
  event.preventDefault()
  event.stopImmediatePropagation()
  kept.push(event.key)
}

/** Begins to keep keys. */
export function holdKeys(): void {
  isHolding = true
  document.addEventListener('keydown', onKey, { capture: true })
}

/** The page is there, with its focus set: it gets what was kept, one after the other, until a key leads on to another page. */
export async function releaseKeys(): Promise<void> {
  isHolding = false
  if (isGiving) return
  isGiving = true
  while (kept.length > 0 && !isHolding) {
    press(kept.shift()!)
    // Where it leads on, the way there begins some moments after the key.
    await new Promise((resolve) => setTimeout(resolve))
  }
  isGiving = false
  if (!isHolding) document.removeEventListener('keydown', onKey, { capture: true })
}

let isPressing = false

/** As a key pressed now: to what has the focus, which takes a letter as typed where nobody else wants it. */
function press(key: string) {
  const target = document.activeElement ?? document.body
  isPressing = true
  const isFree = target.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }))
  isPressing = false
  if (!isFree) return
  if (key === 'Enter' && target.matches('button, a')) (target as HTMLElement).click()
  if (!(target instanceof HTMLInputElement || target instanceof HTMLTextAreaElement)) return
  if (key.length > 1 && key !== 'Backspace') return
  const [from, to] = [target.selectionStart ?? 0, target.selectionEnd ?? 0]
  if (key !== 'Backspace') target.setRangeText(key, from, to, 'end')
  else target.setRangeText('', from === to ? Math.max(0, from - 1) : from, to, 'end')
  target.dispatchEvent(new Event('input', { bubbles: true }))
}
