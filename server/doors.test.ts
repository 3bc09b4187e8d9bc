import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { request as httpRequest } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { brotliCompressSync, gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER, ROUTES, type Student } from '#contracts'
import { DESCRIPTION_READS } from './http/rate-limit'
import { startHarness, type Client, type Harness } from './testing/harness'

let webRoot: string
let harness: Harness
let client: Client
beforeAll(async () => {
  webRoot = mkdtempSync(join(tmpdir(), 'jadefell-web-'))
  mkdirSync(join(webRoot, 'assets'))
  writeFileSync(join(webRoot, 'index.html'), '<!doctype html><title>Jadefell</title>')
  writeFileSync(join(webRoot, 'assets/page-1.js'), 'export {}\n')
  writeFileSync(join(webRoot, 'assets/page-1.js.br'), brotliCompressSync('export {}\n'))
  writeFileSync(join(webRoot, 'assets/page-1.js.gz'), gzipSync('export {}\n'))
  harness = await startHarness({ webRoot })
  client = await harness.studio('Door Studio')
})
afterAll(async () => {
  await harness.close()
  rmSync(webRoot, { recursive: true })
})

/** Lines of the log that say the server was at fault since the last look. */
function faults(): string[] {
  return harness.log.splice(0).filter((line) => (JSON.parse(line) as { level: number }).level >= 50)
}
const headers = () => ({
  cookie: client.cookie,
  [CSRF_HEADER]: client.session!.csrfToken,
  [IDEMPOTENCY_HEADER]: crypto.randomUUID(),
})

it.each([
  ['br, gzip', 'br'],
  ['gzip', 'gzip'],
  ['identity', null],
])('a caller that takes %s gets a file of the page as the build packed it: %s', async (taken, packed) => {
  const answer = await fetch(`${harness.url}/assets/page-1.js`, { headers: { 'accept-encoding': taken } })
  expect(answer.headers.get('content-encoding')).toBe(packed)
  expect(answer.headers.get('vary')).toContain('Accept-Encoding')
  expect(answer.headers.get('cache-control')).toContain('immutable')
  expect(answer.headers.get('content-type')).toContain('javascript')
  expect(await answer.text()).toBe('export {}\n')
})

describe('what makes no sense', () => {
  const garbage = Buffer.from([0x1f, 0x8b, 8, 0, 255, 1, 2, 3, 250, 0, 17])

  it.each(['identity', 'gzip', 'deflate', 'br', 'zip'])(
    'sent as %s to any route is the caller’s fault, and not written down as ours',
    async (encoding) => {
      faults()
      for (const [method, path] of Object.values(ROUTES).filter(
        ([verb]) => verb === 'POST' || verb === 'PATCH',
      )) {
        const address = path
          .replace(/:record\b/, 'check')
          .replace(/:\w+/g, '01900000-0000-7000-8000-000000000001')
        const response = await fetch(`${harness.url}${API_BASE}${address}`, {
          method,
          headers: { ...headers(), 'content-type': 'application/json', 'content-encoding': encoding },
          body: garbage,
        })
        const said = (await response.json()) as { code: string }
        expect(response.status, `${path}: ${said.code}`).toBeGreaterThanOrEqual(400)
        expect(response.status, `${path}: ${said.code}`).toBeLessThan(500)
      }
      expect(faults()).toEqual([])
    },
  )

  it('is half of a character anywhere in a save is named at its field', async () => {
    const broken =
      '{"name":"Half \\ud83c","family":"violin","note":"","lesson":{"weekday":6,"time":"09:4\\udc00"}}'
    const { problem } = await client.send('POST', '/students', broken)
    expect(problem).toMatchObject({ status: 422, code: 'invalid_request' })
    expect(problem.fields?.map(({ path }) => path)).toEqual(expect.arrayContaining(['name', 'lesson.time']))
    const whole = await client.make<Student>('POST', '/students', { name: 'Whole 🎻', family: 'violin' })
    expect(whole.name).toBe('Whole 🎻')
    const line = { family: 'violin', frameId: 'fourth', keyId: 'G:major', figure: 'scale', octaves: 1 }
    const tuned = await client.send('POST', '/fingerings', {
      line: { ...line, tuning: ['G3', 'D4', 'A4', 'X9'] },
      notes: null,
      settled: [],
    })
    expect(tuned.problem.fields).toMatchObject([{ path: 'line.tuning.3' }])
  })

  it('asked again and again of the description is told to wait; once is enough for an hour', async () => {
    const other = await startHarness()
    const ask = () => fetch(`${other.url}${API_BASE}/openapi.json`)
    const first = await ask()
    expect(first.headers.get('cache-control')).toBe('public, max-age=3600')
    for (let i = 1; i < DESCRIPTION_READS; i++) expect((await ask()).status).toBe(200)
    const last = await ask()
    expect([last.status, ((await last.json()) as { code: string }).code]).toEqual([429, 'too_many_requests'])
    expect(last.headers.get('cache-control')).toBe('no-store')
    await other.close()
  })

  it('unpacks to far more than it weighs is refused before it is unpacked', async () => {
    const body = gzipSync(Buffer.alloc(60_000_000, '['))
    const response = await fetch(`${harness.url}${API_BASE}/students`, {
      method: 'POST',
      headers: { ...headers(), 'content-type': 'application/json', 'content-encoding': 'gzip' },
      body,
    })
    expect([response.status, ((await response.json()) as { code: string }).code]).toEqual([413, 'too_large'])
  })

  it('of the built page is not there, or not that part of it; the database has nothing to do with it', async () => {
    faults()
    const page = (path: string, more: Record<string, string> = {}) =>
      fetch(harness.url + path, { headers: more })
    expect((await page('/assets/page-1.js')).status).toBe(200)
    const missing = await page('/assets/page-2.js')
    expect([missing.status, ((await missing.json()) as { code: string }).code]).toEqual([404, 'not_found'])
    expect((await page('/assets/page-1.js', { range: 'bytes=900-' })).status).toBe(416)
    const conditional = await page('/assets/page-1.js', { 'if-match': '"another"' })
    expect([conditional.status, ((await conditional.json()) as { code: string }).code]).toEqual([
      412,
      'precondition_failed',
    ])
    expect((await page('/assets/..%2f..%2fpackage.json')).status).toBe(404)
    expect((await page('/assets/%00')).status).toBeLessThan(500)
    expect(faults()).toEqual([])
  })

  it('that breaks off in the middle leaves no trace in the log', async () => {
    faults()
    await new Promise<void>((resolve) => {
      const { hostname, port } = new URL(harness.url)
      const path = `${API_BASE}/students`
      const more = { ...headers(), 'content-type': 'application/json', 'content-length': 500 }
      const outgoing = httpRequest({ hostname, port, path, method: 'POST', headers: more })
      outgoing.once('error', () => resolve())
      outgoing.write('{"name": "Half')
      outgoing.once('socket', (socket) =>
        socket.once('connect', () => setImmediate(() => outgoing.destroy())),
      )
      outgoing.once('close', () => resolve())
    })
    expect((await client.send('GET', '/students')).status).toBe(200)
    expect(faults()).toEqual([])
  })
})

describe('HEAD', () => {
  it('answers as GET does, without a body, and asks for no token', async () => {
    for (const path of ['/session', '/students', '/health']) {
      const [got, head] = await Promise.all(
        ['GET', 'HEAD'].map((method) =>
          fetch(`${harness.url}${API_BASE}${path}`, { method, headers: { cookie: client.cookie } }),
        ),
      )
      expect([path, head!.status]).toEqual([path, got!.status])
      expect(head!.headers.get('content-type')).toBe(got!.headers.get('content-type'))
      expect(await head!.text()).toBe('')
    }
  })
})

describe('two at once', () => {
  it('who lend one instrument: one has it, the other hears that somebody was quicker', async () => {
    const { instrument, student } = await client.player('Quick')
    await client.make('POST', `/students/${student.id}/loans`, { instrumentId: null, on: '2026-11-28' })
    for (let round = 0; round < 5; round++) {
      const two = await Promise.all(
        ['Left', 'Right'].map((name) =>
          client.make<Student>('POST', '/students', { name, family: 'violin' }),
        ),
      )
      const replies = await Promise.all(
        two.map(({ id }) =>
          client.send('POST', `/students/${id}/loans`, { instrumentId: instrument.id, on: '2026-11-28' }),
        ),
      )
      const statuses = replies.map((reply) => reply.status).sort()
      // One after the other is lending on, which is allowed.
      expect(
        [
          [200, 200],
          [200, 409],
        ].map(String),
      ).toContain(String(statuses))
      const files = await Promise.all(two.map(({ id }) => client.make<Student>('GET', `/students/${id}`)))
      expect(files.filter((file) => file.instrument?.id === instrument.id)).toHaveLength(1)
    }
    expect(faults()).toEqual([])
  })

  it('a save whose fields come in another order is the same save', async () => {
    const key = crypto.randomUUID()
    const one = await client.send('POST', '/students', { name: 'Same', family: 'violin', note: 'x' }, { key })
    const two = await client.send('POST', '/students', { note: 'x', family: 'violin', name: 'Same' }, { key })
    expect([one.status, two.body]).toEqual([200, one.body])
    const other = await client.send(
      'POST',
      '/students',
      { name: 'Other', family: 'violin', note: 'x' },
      { key },
    )
    expect(other.problem.code).toBe('idempotency_key_reused')
  })
})
