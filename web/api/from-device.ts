/** Where the service worker keeps what was read, and what it writes on an answer that it gives in the server's place. */
export const READ_CACHE = 'jadefell-read'
/** When the server gave it, in words of HTTP (RFC 9110, 5.6.7). */
export const FROM_DEVICE_HEADER = 'x-jadefell-from-device'

/** Forgets on this device what was read; nothing where nothing can be kept. */
export async function forgetRead(): Promise<void> {
  if ('caches' in globalThis) await caches.delete(READ_CACHE)
}

/** Where it is written down among the answers what was read ahead: it goes with them. */
const AHEAD = '/read-ahead'

/** For whom and which day everything was read ahead; undefined where it was not, or was forgotten. */
export async function readAheadFor(): Promise<string | undefined> {
  return (await (await caches.open(READ_CACHE)).match(AHEAD))?.text()
}

export async function noteReadAhead(of: string): Promise<void> {
  await (await caches.open(READ_CACHE)).put(AHEAD, new Response(of))
}
