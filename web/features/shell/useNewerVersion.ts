import { useEventListener, useIntervalFn } from '@vueuse/core'
import { ref } from 'vue'

/** How often a page that stays open looks, ms; and whenever it comes to the front again. */
const LOOK_EVERY_MS = 10 * 60_000

/**
 * Whether the server has a newer page than the one that is open: one that does not begin with the same script. What is typed lies in
 * this browser, and is there after a reload.
 */
export function useNewerVersion(script = ownScript()) {
  const isNewer = ref(false)
  async function look() {
    if (isNewer.value || script === undefined) return
    // Away, or something between that answers in its place: asked again another time.
    const page = await fetch('/', { cache: 'no-store', credentials: 'same-origin' }).then(
      (response) => (response.ok ? response.text() : ''),
      () => '',
    )
    isNewer.value = /<script[^>]+src="\/assets\//.test(page) && !page.includes(script)
  }
  useIntervalFn(() => void look(), LOOK_EVERY_MS)
  useEventListener(document, 'visibilitychange', () => document.visibilityState === 'visible' && void look())
  return { isNewer, look }
}

/** `/assets/index-abc.js`, the name of which changes with what is in it; undefined where the page is not a built one. */
function ownScript(): string | undefined {
  const { src } = document.querySelector<HTMLScriptElement>('script[type="module"][src*="/assets/"]') ?? {}
  return src === undefined ? undefined : new URL(src).pathname
}
