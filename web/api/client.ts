import { v4 as uuid } from 'uuid'
import { shallowRef } from 'vue'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER, ROUTES } from '#contracts'
import { FROM_DEVICE_HEADER } from './from-device'
import type { Answer, Attachment, ClientInput, Problem, RouteName } from '#contracts'

/** What the server said it could not do, or that it was not reached at all. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem | undefined) {
    super(problem?.detail ?? problem?.title ?? 'The server is not reached.')
  }

  get code() {
    return this.problem?.code ?? 'unreachable'
  }

  /** Trying the same again may work. */
  get isPassing(): boolean {
    return this.problem === undefined || this.problem.status === 503 || this.problem.status === 507
  }

  /** What is wrong with one field, if this problem says so. */
  field(path: string): string | undefined {
    return this.problem?.fields?.find((field) => field.path === path)?.message
  }
}

export interface CallOptions {
  /** The same for the same save, however often it is sent; a new one is made where none is given. */
  readonly idempotencyKey?: string
}

/** Since when what is shown is of this device alone; undefined while the server answers. */
export const fromDeviceSince = shallowRef<Date>()

let csrfToken = ''

export function setCsrfToken(token: string): void {
  csrfToken = token
}

/** Sends a file to lie beside a record; throws {@link ApiProblem}. */
export async function upload(
  record: 'check' | 'student' | 'instrument',
  recordId: string,
  file: Blob,
): Promise<Attachment> {
  const response = await fetch(`${API_BASE}/attachments/${record}/${encodeURIComponent(recordId)}`, {
    method: 'POST',
    credentials: 'same-origin',
    headers: {
      'content-type': file.type,
      [CSRF_HEADER]: csrfToken,
      [IDEMPOTENCY_HEADER]: uuid(),
    },
    body: file,
  }).catch(() => {
    throw new ApiProblem(undefined)
  })
  if (response.ok) return (await response.json()) as Attachment
  throw new ApiProblem((await response.json().catch(() => undefined)) as Problem | undefined)
}

/** Sends one request of the contracts; throws {@link ApiProblem}. */
export async function call<K extends RouteName>(
  name: K,
  input: ClientInput<K>,
  options: CallOptions = {},
): Promise<Answer<K>> {
  const [method, path] = ROUTES[name]
  const { params, query, body } = input as Record<string, Record<string, string> | undefined>
  const address = path.replace(/:(\w+)/g, (_, key: string) => encodeURIComponent(params?.[key] ?? ''))
  const search = query && Object.keys(query).length > 0 ? `?${new URLSearchParams(query).toString()}` : ''
  const response = await fetch(`${API_BASE}${address}${search}`, {
    method,
    credentials: 'same-origin',
    headers: {
      ...(body ? { 'content-type': 'application/json' } : {}),
      ...(method === 'GET' ? {} : { [CSRF_HEADER]: csrfToken }),
      ...(method === 'POST' ? { [IDEMPOTENCY_HEADER]: options.idempotencyKey ?? uuid() } : {}),
    },
    ...(body ? { body: JSON.stringify(body) } : {}),
  }).catch(() => {
    throw new ApiProblem(undefined)
  })
  const since = response.headers.get(FROM_DEVICE_HEADER)
  fromDeviceSince.value = since === null ? undefined : earlier(new Date(since), fromDeviceSince.value)
  if (response.ok) return (response.status === 204 ? null : await response.json()) as Answer<K>
  throw new ApiProblem((await response.json().catch(() => undefined)) as Problem | undefined)
}

function earlier(one: Date, other: Date | undefined): Date {
  return other && other < one ? other : one
}
