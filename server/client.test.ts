import OpenAPIClientAxios, { type Document } from 'openapi-client-axios'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER, type Page, type Session, type Student } from '#contracts'
import { startHarness, type Harness } from './testing/harness'

let harness: Harness
beforeAll(async () => (harness = await startHarness()))
afterAll(() => harness.close())

/** A client that knows this program by its description alone, made by another library out of it. */
async function clientOf(cookie = '', csrf = '') {
  const definition = (await (await fetch(`${harness.url}${API_BASE}/openapi.json`)).json()) as Document
  const api = new OpenAPIClientAxios({
    definition,
    withServer: { url: `${harness.url}${API_BASE}` },
    axiosConfigDefaults: { headers: { cookie, [CSRF_HEADER]: csrf }, validateStatus: () => true },
  })
  return api.init()
}
type Client = Awaited<ReturnType<typeof clientOf>>

/** By the name that the description gives it. */
async function call<T>(
  client: Client,
  name: string,
  params: object = {},
  body?: unknown,
  headers: object = {},
) {
  const operation = client[name] as (
    params: unknown,
    body: unknown,
    config: unknown,
  ) => Promise<{ status: number; data: T; headers: Record<string, string[]> }>
  return operation(params, body, { headers })
}

it('is used by a client that another program makes of its description: signs in, saves, reads, is refused in words', async () => {
  const { email, password } = await harness.studio('Described')
  const stranger = await clientOf()
  expect((await call(stranger, 'students.list')).status).toBe(401)
  const opened = await call<Session>(stranger, 'session.open', {}, { email, password })
  const cookie = String(opened.headers['set-cookie']?.[0]).split(';')[0]
  const client = await clientOf(cookie, opened.data.csrfToken)

  const draft = { name: 'Orla Venn', family: 'violin' }
  const key = { [IDEMPOTENCY_HEADER]: 'a-key-of-the-client' }
  const made = await call<Student>(client, 'students.create', {}, draft, key)
  expect(made.status).toBe(200)
  const again = await call<Student>(client, 'students.create', {}, draft, key)
  expect(again.data.id).toBe(made.data.id)
  // A parameter of a path, one of a query, and a body, each where the description has it.
  const read = await call<Student>(client, 'students.read', { studentId: made.data.id })
  expect(read.data.name).toBe('Orla Venn')
  const found = await call<Page<Student>>(client, 'students.list', { q: 'orla', limit: 5 })
  expect(found.data.rows.map(({ id }) => id)).toEqual([made.data.id])
  const refused = await call<{ code: string }>(
    client,
    'students.update',
    { studentId: made.data.id },
    { version: 1, name: '' },
  )
  expect([refused.status, refused.data.code]).toEqual([422, 'invalid_request'])
  expect((await call(client, 'session.close')).status).toBe(204)
  expect((await call(client, 'students.list')).status).toBe(401)
})
