import { computed, shallowRef, type ComputedRef } from 'vue'

/** What a field can hold, told by its `data-takes`; a key that cannot lead to it is not for the field. */
export type Takes = 'number' | 'length' | 'sides'

interface Grammar {
  /** Matches whatever may still become a value while it is typed. */
  readonly begun: RegExp
  readonly says: string
}

const GRAMMARS: Record<Takes, Grammar> = {
  number: { begun: /^[-+−\d.,\s]*$/, says: 'numbers' },
  sides: { begun: /^[bop\s]*$/i, says: 'b, o or p' },
  length: {
    begun: /^\s*[-−]?(?:[\d½¼¾⅛⅜⅝⅞][\d\s.,/½¼¾⅛⅜⅝⅞]*(?:mm?|cm?|in?|inch?|inche?s?|["″])?\s*)?$/i,
    says: 'a number, and mm, cm or in after it',
  },
}
/** Fields of the browser's own that take no letters; a time takes the a and p of its halves of the day. */
const OF_TYPE: Record<string, RegExp> = { number: /^[-+\d.,e]$/i, date: /^[\d/.\- ]$/, time: /^[\d:ap ]$/i }
/** Inputs without text: they have a few keys of their own and leave the rest to the page. */
const OWN_KEYS: Record<string, RegExp> = {
  checkbox: /^ $/,
  radio: /^( |Arrow.*)$/,
  range: /^(Arrow|Page|Home|End)/,
}

/** Whether something is typed into what has the focus. */
export function isField(target: EventTarget | null): target is HTMLElement {
  if (!(target instanceof HTMLElement)) return false
  if (target instanceof HTMLInputElement) return !(target.type in OWN_KEYS) && !target.readOnly
  return target.matches('textarea, select') || target.isContentEditable
}

/** Whether a key belongs to what has the focus: somebody types, ticks a box, presses a button. */
export function isFor(target: EventTarget | null, key: string): boolean {
  if (!(target instanceof HTMLElement)) return false
  if (target.matches('button, a, summary')) return key === 'Enter' || key === ' '
  if (target instanceof HTMLInputElement) {
    const own = OWN_KEYS[target.type]
    if (own) return own.test(key)
    // A choice that opens: what it shows cannot be typed over.
    if (target.readOnly) return /^(Enter| |Arrow.*|Escape)$/.test(key)
    // Only a field of a form has something of its own to do at Enter; others say so by preventing it.
    if (key === 'Enter') return target.form !== null
  }
  return isField(target) && (key.length > 1 || canTake(target, key))
}

/** What a field says it takes, where it cannot take every key. */
export function takesOf(target: HTMLElement): string | undefined {
  return GRAMMARS[target.dataset['takes'] as Takes]?.says
}

function canTake(field: HTMLElement, key: string): boolean {
  if (!(field instanceof HTMLInputElement)) return true
  const ofType = OF_TYPE[field.type]
  if (ofType) return ofType.test(key)
  const grammar = GRAMMARS[field.dataset['takes'] as Takes]
  if (!grammar) return true
  const { value, selectionStart: from, selectionEnd: to } = field
  return grammar.begun.test(value.slice(0, from ?? value.length) + key + value.slice(to ?? value.length))
}

/** Changes with everything that may change which keys the field in focus takes. */
const turn = shallowRef(0)
let isWatching = false
function watchFocus() {
  if (isWatching) return
  isWatching = true
  for (const event of ['focusin', 'focusout', 'input', 'selectionchange'])
    // After a focusout the next element has the focus a moment later.
    document.addEventListener(event, () => queueMicrotask(() => turn.value++))
}

/** Whether a page's key would be typed into the field in focus now, so that Escape has to come before it; Enter never is. */
export function useIsTyped(key: () => string): ComputedRef<boolean> {
  watchFocus()
  return computed(
    () => (
      turn.value,
      key() !== 'Enter' && isField(document.activeElement) && isFor(document.activeElement, key())
    ),
  )
}
