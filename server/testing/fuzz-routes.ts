import { setTimeout as pause } from 'node:timers/promises'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER, ROUTES, type Endpoint, type RouteName } from '#contracts'
import { ENDPOINTS } from '#contracts/endpoints'
import { silence, type Client, type Harness } from './harness'
import { mutatedBytes, mutatedJson, mutatedText, type Source } from './mutate'
import { oneOfEverything } from './one-of-everything'

export interface RouteFuzz {
  readonly route: RouteName
  /** How each was answered: status and how often. */
  readonly answers: Readonly<Record<number, number>>
  /** Answered as the server's own fault, not at all, or too late: what was sent. */
  readonly wrong: readonly string[]
}

/** No request of one teacher takes so long, ms, on a machine that others load. */
const TOO_LATE_MS = 10_000
/** Rows that are there are hit again while most are taken away by some of the requests. */
const ROWS_ANEW = 400

/**
 * Sends every route what it was not made for: the examples of its contract with parts changed, ids of rows that are there and of
 * none, queries and files as they never come. Whatever it is, it is refused in words: never a 500, never silence.
 */
export async function fuzzRoutes(
  harness: Harness,
  { inputs, source, only }: { inputs: number; source: Source; only?: RouteName | undefined },
): Promise<RouteFuzz[]> {
  const told: RouteFuzz[] = []
  let client = await harness.studio('Fuzzed Studio')
  let ids = await oneOfEverything(client, 'Zephyrine Quay')
  let sent = 0
  for (const route of Object.keys(ROUTES) as RouteName[]) {
    if (only !== undefined && route !== only) continue
    const answers: Record<number, number> = {}
    const wrong: string[] = []
    for (let nth = 0; nth < inputs; nth++) {
      if (++sent % ROWS_ANEW === 0) {
        client = await harness.studio('Fuzzed Studio')
        ids = await oneOfEverything(client, 'Zephyrine Quay')
      }
      const request = drawn(route, source, ids)
      const answer = await Promise.race([ask(client, request), pause(TOO_LATE_MS, undefined)]).catch(
        (error: unknown) => error as Error,
      )
      const status = typeof answer === 'number' ? answer : 0
      answers[status] = (answers[status] ?? 0) + 1
      if (status === 0 || status >= 500) wrong.push(`${status} ${JSON.stringify(request)}`.slice(0, 2000))
    }
    told.push({ route, answers, wrong })
  }
  return told
}

interface Drawn {
  readonly method: string
  readonly path: string
  readonly body: BodyInit | undefined
  readonly type: string
}

function drawn(route: RouteName, source: Source, ids: Record<string, string>): Drawn {
  const [method, template] = ROUTES[route]
  const { body, query, upload }: Endpoint = ENDPOINTS[route]
  const isWild = () => source() < 0.15
  const path = template.replace(/:(\w+)/g, (_, key: string) => {
    const id = ids[key] ?? ''
    return encodeURIComponent(clean(isWild() ? mutatedText(source, id) : id)) || '-'
  })
  const [asked] = (query?.meta()?.examples ?? [{}]) as Record<string, string>[]
  const names = Object.keys(query?.shape ?? {})
  const parts = names
    .filter((name) => asked?.[name] !== undefined || source() < 0.4)
    .map((name) => [
      name,
      isWild() || asked?.[name] === undefined ? mutatedText(source, asked?.[name] ?? '1') : asked[name],
    ])
  const search = parts.length > 0 ? `?${new URLSearchParams(parts).toString()}` : ''
  if (upload) {
    const bytes = mutatedBytes(source, silence())
    return {
      method,
      path: path + search,
      body: bytes,
      type: isWild() ? mutatedText(source, 'audio/wav') : 'audio/wav',
    }
  }
  const [example] = (body?.meta()?.examples ?? []) as unknown[]
  const own =
    example && Object.fromEntries(Object.entries(example).map(([key, value]) => [key, ids[key] ?? value]))
  const changed = JSON.stringify(mutatedJson(source, own ?? {})) ?? ''
  return {
    method,
    path: path + search,
    body: method === 'GET' ? undefined : isWild() ? mutatedText(source, changed) : changed,
    type: 'application/json',
  }
}

/** Half of a character cannot be written into an address. */
const clean = (text: string) => text.replace(/\p{Surrogate}/gu, '')

async function ask(client: Client, { method, path, body, type }: Drawn): Promise<number> {
  const response = await fetch(`${client.url}${API_BASE}${path}`, {
    method,
    headers: {
      cookie: client.cookie,
      [CSRF_HEADER]: client.session?.csrfToken ?? '',
      [IDEMPOTENCY_HEADER]: crypto.randomUUID(),
      'content-type': type.replace(/[^\x20-\x7e]/g, '').trim() || 'text/plain',
    },
    ...(body === undefined ? {} : { body }),
  })
  await response.arrayBuffer()
  return response.status
}
