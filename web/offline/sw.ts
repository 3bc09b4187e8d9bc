// The page's service worker: what was built is there without a network, and what was read answers in the server's place while that is away.
import { ExpirationPlugin } from 'workbox-expiration'
import { cleanupOutdatedCaches, matchPrecache, precacheAndRoute } from 'workbox-precaching'
import { NavigationRoute, registerRoute } from 'workbox-routing'
import { NetworkOnly, Strategy, type StrategyHandler } from 'workbox-strategies'
import { API_BASE, ROUTES } from '#contracts/routes'
import { FROM_DEVICE_HEADER, READ_CACHE } from '../api/from-device'
import { inOrder, isEndOfSession, isKeptAddress } from './kept'

declare const self: ServiceWorkerGlobalScope
/** What was built, with what changes when it does; put in by the build. */
declare const BUILT: { url: string; revision: string | null }[]

/** Somebody stands beside a child: longer than this the server is away. */
const PATIENCE_MS = 4000
/** As long as a holiday. What lies here is children's data, and no archive. */
const KEPT_S = 14 * 24 * 3600
/** A week of forty lessons. */
const MOST_KEPT = 1200

// Each page asks the server first which is the newest: an older worker has nothing to wait for.
void self.skipWaiting()
self.addEventListener('activate', (event) => event.waitUntil(self.clients.claim()))
cleanupOutdatedCaches()
precacheAndRoute(BUILT, { directoryIndex: '', cleanURLs: false })

/** What the server says, what it says in time, or undefined where it is away. */
function asked(handler: StrategyHandler, request: Request) {
  const answer = handler.fetch(request.clone()).catch(() => undefined)
  const late = new Promise<undefined>((resolve) => self.setTimeout(() => resolve(undefined), PATIENCE_MS))
  return { answer, inTime: Promise.race([answer, late]) }
}

registerRoute(
  new NavigationRoute(
    new (class extends Strategy {
      protected override async _handle(request: Request, handler: StrategyHandler): Promise<Response> {
        const { answer, inTime } = asked(handler, request)
        const page = await inTime
        if (page?.ok) return page
        return (await matchPrecache('/index.html')) ?? (await answer) ?? Response.error()
      }
    })(),
    { denylist: [/^\/api\//] },
  ),
)

/** The server's answer first; where it is away the last one it gave, with when that was. */
class ServerFirst extends Strategy {
  protected override async _handle(request: Request, handler: StrategyHandler): Promise<Response> {
    const { answer, inTime } = asked(handler, request)
    // Also what comes too late to be shown is what the server says.
    void handler.waitUntil(answer.then((said) => said && this.#keep(said, request, handler)))
    const said = await inTime
    if (said && said.status !== 503) return said
    return (await handler.cacheMatch(request)) ?? (await answer) ?? Response.error()
  }

  async #keep(said: Response, request: Request, handler: StrategyHandler): Promise<void> {
    const kept = said.clone()
    if (await isEndOfSession(said.clone(), request.url)) await caches.delete(READ_CACHE)
    else if (said.status === 200) await handler.cachePut(request, dated(kept))
  }
}

/** As it is kept: whoever is given it sees from when it is. */
function dated(answer: Response): Response {
  const headers = new Headers(answer.headers)
  headers.set(FROM_DEVICE_HEADER, answer.headers.get('date') ?? new Date().toUTCString())
  return new Response(answer.body, { status: answer.status, headers })
}

registerRoute(
  ({ url, sameOrigin }) => sameOrigin && isKeptAddress(url.pathname),
  new ServerFirst({
    cacheName: READ_CACHE,
    plugins: [
      // The same question in another order is the same.
      { cacheKeyWillBeUsed: ({ request }) => Promise.resolve(inOrder(request.url)) },
      new ExpirationPlugin({ maxEntries: MOST_KEPT, maxAgeSeconds: KEPT_S, purgeOnQuotaError: true }),
    ],
  }),
)

// Whoever comes or goes leaves nothing for the next one.
const [, SESSION] = ROUTES['session.open']
for (const method of ['POST', 'DELETE'] as const)
  registerRoute(
    `${API_BASE}${SESSION}`,
    new NetworkOnly({
      plugins: [
        {
          fetchDidSucceed: async ({ response }) => {
            if (response.ok) await caches.delete(READ_CACHE)
            return response
          },
        },
      ],
    }),
    method,
  )
