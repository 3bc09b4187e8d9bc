import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { SIGN_IN_ATTEMPTS, SIGN_IN_WINDOW_MS } from './http/rate-limit'
import { SESSION_MS } from './features/session/service'
import { Client, startHarness, type Harness } from './testing/harness'

let harness: Harness
beforeAll(async () => (harness = await startHarness()))
afterAll(() => harness.close())

const minutes = (n: number) => new Date(harness.clock.getTime() + n * 60_000)

describe('signing in', () => {
  it('hands out a cookie that scripts and other sites cannot use, and keeps no token', async () => {
    const client = await harness.studio('Cookie Studio')
    const reply = await client.signIn()
    const cookie = reply.headers.getSetCookie()[0] ?? ''
    expect(cookie).toMatch(/HttpOnly/)
    expect(cookie).toMatch(/SameSite=Strict/)
    const token = client.cookie.split('=')[1] ?? ''
    const rows = await harness.database.models.session.findAll({ raw: true })
    expect(JSON.stringify(rows)).not.toContain(token)
    expect(rows.length).toBeGreaterThan(0)
  })

  it('does not say which half was wrong, and slows guessing down', async () => {
    const client = await harness.studio('Guess Studio')
    const guess = (email: string) => client.send('POST', '/session', { email, password: 'wrong' })
    const wrong = await guess(client.email)
    const unknown = await guess('nobody@harbour.example')
    expect(wrong.problem).toMatchObject({ status: 401, code: 'wrong_credentials' })
    expect({ ...unknown.problem, requestId: '' }).toEqual({ ...wrong.problem, requestId: '' })
    for (let i = 1; i < SIGN_IN_ATTEMPTS; i++) await guess(client.email)
    const blocked = await client.signIn()
    expect(blocked.status).toBe(429)
    expect(Number(blocked.headers.get('retry-after'))).toBeGreaterThan(0)
    harness.clock = new Date(harness.clock.getTime() + SIGN_IN_WINDOW_MS + 1000)
    expect((await client.signIn()).status).toBe(200)
  })

  it('does not count the times it went well', async () => {
    const client = await harness.studio('Well Studio')
    for (let i = 0; i < SIGN_IN_ATTEMPTS + 3; i++) expect((await client.signIn()).status).toBe(200)
  })

  it('ends by signing out, and by a fortnight of silence, not before', async () => {
    const client = await harness.studio('Ending Studio')
    harness.clock = minutes(SESSION_MS / 60_000 - 5)
    expect((await client.send('GET', '/session')).status).toBe(200)
    harness.clock = minutes(SESSION_MS / 60_000 - 5)
    expect((await client.send('GET', '/session')).status).toBe(200)
    harness.clock = minutes(SESSION_MS / 60_000 + 1)
    expect((await client.send('GET', '/session')).problem.code).toBe('not_signed_in')
    await client.signIn()
    expect((await client.send('DELETE', '/session')).status).toBe(204)
    expect((await client.send('GET', '/students')).problem.code).toBe('not_signed_in')
  })
})

describe('changes', () => {
  it('need the session’s CSRF token, and must not come from another site', async () => {
    const client = await harness.studio('Forged Studio')
    const draft = { name: 'Nobody', family: 'violin' }
    for (const headers of [
      { 'x-csrf-token': '' },
      { 'x-csrf-token': 'f'.repeat(64) },
      { 'sec-fetch-site': 'cross-site' },
    ])
      expect((await client.send('POST', '/students', draft, { headers })).problem.code).toBe('csrf_failed')
    expect((await client.send('GET', '/students')).body).toEqual([])
  })
})

describe('answers', () => {
  it('carry a strict content security policy and no trace of the framework', async () => {
    const response = await fetch(`${harness.url}/api/health`)
    const policy = response.headers.get('content-security-policy') ?? ''
    expect(policy).toContain("default-src 'none'")
    expect(policy).not.toContain('unsafe')
    expect(response.headers.get('x-powered-by')).toBeNull()
    expect(await response.json()).toEqual({ status: 'ok', version: '0.0.0-test', database: 'ok' })
  })

  it('write a log without names, addresses or what was searched for', async () => {
    const client = await harness.studio('Quiet Studio')
    const { student } = await client.player('Hush Hush Harbour')
    await client.send('GET', '/students?q=Hush')
    await client.send('POST', '/students', '{"name": "Hush', {})
    await client.send('GET', `/students/${student.id}`)
    const log = harness.log.join('')
    expect(log).toContain('students.list')
    for (const personal of ['Hush', client.email, student.id]) expect(log).not.toContain(personal)
  })

  it('say that an address leads nowhere, whatever it is', async () => {
    const client = new Client(harness.url, '')
    for (const path of ['/nowhere', '/students/%E0%A4%A', '/students/not-an-id']) {
      const reply = await client.send('GET', path)
      expect([401, 404], path).toContain(reply.status)
      expect(reply.headers.get('content-type')).toContain('application/problem+json')
    }
  })
})
