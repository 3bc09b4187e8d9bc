import { afterEach, expect, it, vi } from 'vitest'
import { effectScope } from 'vue'
import { useNewerVersion } from './useNewerVersion'

const page = (script: string) =>
  `<!doctype html><script type="module" crossorigin src="/assets/${script}"></script>`
const scope = effectScope()
afterEach(() => {
  vi.unstubAllGlobals()
  scope.stop()
})

it('is told of once the server begins another page, and by nothing else', async () => {
  let answer = () => Promise.resolve(new Response(page('index-a1.js')))
  vi.stubGlobal('fetch', () => answer())
  const { isNewer, look } = scope.run(() => useNewerVersion('/assets/index-a1.js'))!
  await look()
  expect(isNewer.value).toBe(false)
  for (const other of [
    () => Promise.reject(new TypeError('away')),
    () => Promise.resolve(new Response('', { status: 502 })),
    // A page of the network’s own, before somebody has signed in to it.
    () => Promise.resolve(new Response('<html>Welcome to the school’s network</html>')),
  ]) {
    answer = other
    await look()
    expect(isNewer.value).toBe(false)
  }
  answer = () => Promise.resolve(new Response(page('index-b2.js')))
  document.dispatchEvent(new Event('visibilitychange'))
  await vi.waitFor(() => expect(isNewer.value).toBe(true))
})
