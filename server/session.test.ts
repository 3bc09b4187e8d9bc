import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { API_BASE, type Door, type OpenSession } from '#contracts'
import { addStudio } from './features/session/accounts'
import { SIGN_IN_ATTEMPTS, SIGN_IN_ATTEMPTS_AT_ALL, SIGN_IN_WINDOW_MS } from './http/rate-limit'
import { LONGEST_SESSION_MS, SESSION_MS } from './features/session/service'
import { Client, startHarness, type Harness } from './testing/harness'

let harness: Harness
// Callers are told apart by what a proxy says of them, as in front of a real server.
beforeAll(async () => (harness = await startHarness({ trustProxy: 1 })))
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

  it.each(['1998-03-02T09:00:00.000Z', '2091-03-02T09:00:00.000Z'])(
    'counts no good attempt, whatever the day: one clock decides (%s)',
    async (day) => {
      const [client, before] = [await harness.studio(`Studio of ${day}`), harness.clock]
      harness.clock = new Date(day)
      for (let i = 0; i < SIGN_IN_ATTEMPTS + 2; i++) expect((await client.signIn()).status).toBe(200)
      harness.clock = before
    },
  )

  it('is looked at from the door without an error, where nobody is signed in and where somebody is', async () => {
    const client = await harness.studio('Door Studio')
    expect((await client.make<Door>('GET', '/door')).session?.studio.name).toBe('Door Studio')
    await client.send('DELETE', '/session')
    const closed = await client.send('GET', '/door')
    expect([closed.status, closed.body]).toEqual([200, { session: null, demo: null }])
  })

  it('shows the demo’s key at the door where it may, to nobody who is signed in, and only while there is a demo', async () => {
    const demo = { email: `${randomUUID()}@port-ellery.example`, password: 'lantern-round' }
    const open = await startHarness({ database: harness.database, demo })
    try {
      const door = async () => (await (await fetch(`${open.url}${API_BASE}/door`)).json()) as Door
      expect((await door()).demo).toBeNull()
      await harness.database.inTransaction((transaction) =>
        addStudio(harness.database, transaction, {
          studioName: 'Demo',
          teacherName: 'T',
          ...demo,
          now: harness.clock,
        }),
      )
      expect((await door()).demo).toEqual(demo)
      const client = await open.studio('Own Studio')
      expect((await client.make<Door>('GET', '/door')).demo).toBeNull()
    } finally {
      await open.end()
    }
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

/** Another browser on the same account, calling from an address of its own. */
function elsewhere(client: Client, address: string, email = client.email) {
  const other = new Client(harness.url, email)
  return {
    other,
    open: (password: string) =>
      other.send('POST', '/session', { email, password }, { headers: { 'x-forwarded-for': address } }),
  }
}

describe('guessing', () => {
  it('gets no fresh allowance by spelling the address otherwise, and no way in by what only looks alike', async () => {
    const client = await harness.studio('Spelled Studio')
    const [name = '', host = ''] = client.email.split('@')
    const wide = String.fromCodePoint(name.codePointAt(0)! + 0xfee0) + name.slice(1)
    for (const alike of [`${name}\u200b@${host}`, `${name.replace(/[a-f]/, '$&\u0301')}@${host}`])
      expect((await elsewhere(client, '192.0.2.1', alike).open(client.password)).status, alike).toBe(401)
    const spellings = [client.email, client.email.toUpperCase(), ` ${client.email} `, `${wide}@${host}`]
    for (let i = 0; i < SIGN_IN_ATTEMPTS; i++)
      await elsewhere(client, '192.0.2.2', spellings[i % spellings.length]).open('wrong')
    for (const spelling of spellings)
      expect((await elsewhere(client, '192.0.2.2', spelling).open(client.password)).status).toBe(429)
    // An address that nobody has is slowed alike: by that alone it is not told from one that somebody has.
    for (let i = 0; i < SIGN_IN_ATTEMPTS; i++)
      await elsewhere(
        client,
        '192.0.2.4',
        i % 2 ? 'Nobody.Else@Harbour.example' : 'nobody.else@harbour.example',
      ).open('wrong')
    expect((await elsewhere(client, '192.0.2.4', ' NOBODY.ELSE@harbour.example').open('wrong')).status).toBe(
      429,
    )
    // Its owner, at home, is not locked out by somebody's guesses.
    expect((await elsewhere(client, '192.0.2.3').open(client.password)).status).toBe(200)
  })

  it('is waited for no longer than the window, also where a clock ran a day ahead and was put right', async () => {
    const client = await harness.studio('Clock Studio')
    const right = harness.clock
    harness.clock = new Date(right.getTime() + 24 * 3600_000)
    for (let i = 0; i < SIGN_IN_ATTEMPTS; i++) await elsewhere(client, '192.0.2.20').open('wrong')
    expect((await elsewhere(client, '192.0.2.20').open(client.password)).status).toBe(429)
    harness.clock = right
    // Another server’s clock, a little behind: what it counted before counts.
    for (let i = 0; i < SIGN_IN_ATTEMPTS; i++) await elsewhere(client, '192.0.2.21').open('wrong')
    harness.clock = new Date(right.getTime() - 5000)
    expect((await elsewhere(client, '192.0.2.21').open(client.password)).status).toBe(429)
    harness.clock = right
    expect((await elsewhere(client, '192.0.2.20').open(client.password)).status).toBe(200)
  })

  it('is slowed on many accounts from one address, and on one account from many addresses', async () => {
    const client = await harness.studio('Crowded Studio')
    const all = Array.from({ length: SIGN_IN_ATTEMPTS_AT_ALL }, (_, i) => i)
    await Promise.all(
      all.map((i) => elsewhere(client, '192.0.2.9', `nobody${i}@harbour.example`).open('wrong')),
    )
    expect((await elsewhere(client, '192.0.2.9').open(client.password)).status).toBe(429)
    expect((await elsewhere(client, '192.0.2.10').open(client.password)).status).toBe(200)
    await Promise.all(all.map((i) => elsewhere(client, `198.51.100.${i}`).open('wrong')))
    expect((await elsewhere(client, '192.0.2.10').open(client.password)).status).toBe(429)
  })
})

describe('sessions', () => {
  it('end for good in the end, however much they are used', async () => {
    const client = await harness.studio('Long Studio')
    const begun = harness.clock.getTime()
    for (let days = 10; days * 24 * 3600_000 < LONGEST_SESSION_MS; days += 10) {
      harness.clock = new Date(begun + days * 24 * 3600_000)
      expect((await client.send('GET', '/session')).status, `${days} days`).toBe(200)
    }
    harness.clock = new Date(begun + LONGEST_SESSION_MS)
    expect((await client.send('GET', '/session')).problem.code).toBe('not_signed_in')
  })

  it('are listed to their owner, and ended from another one', async () => {
    const client = await harness.studio('Listed Studio')
    const { other, open } = elsewhere(client, '192.0.2.20')
    other.cookie = (await open(client.password)).headers.getSetCookie()[0]?.split(';')[0] ?? ''
    const sessions = await client.make<OpenSession[]>('GET', '/sessions')
    expect(sessions.map((s) => s.isThis).sort()).toEqual([false, true])
    expect(JSON.stringify(sessions)).not.toContain(client.cookie.split('=')[1])
    const theirs = sessions.find((s) => !s.isThis)!
    await client.make('DELETE', `/sessions/${theirs.id}`)
    expect((await other.send('GET', '/session')).status).toBe(401)
    expect((await client.send('DELETE', `/sessions/${theirs.id}`)).status).toBe(404)
    await open(client.password)
    await client.make('DELETE', '/sessions')
    expect(await client.make<OpenSession[]>('GET', '/sessions')).toHaveLength(1)
  })

  it('know a phone from a computer, and keep no more of a browser than that', async () => {
    const client = await harness.studio('Device Studio')
    const headers = {
      'user-agent': 'Mozilla/5.0 (Linux; Android 15; Mobile) Harbour/1.0 Mobile',
      'x-forwarded-for': '192.0.2.30',
    }
    await client.send('POST', '/session', { email: client.email, password: client.password }, { headers })
    const [newest] = await client.make<OpenSession[]>('GET', '/sessions')
    expect(['phone', 'unknown']).toContain(newest?.device)
    const rows = JSON.stringify(await harness.database.models.session.findAll({ raw: true }))
    for (const personal of ['Harbour/1.0', '192.0.2.30']) expect(rows).not.toContain(personal)
  })

  it('are carried by a cookie that no neighbour can plant, where there is HTTPS', async () => {
    const secure = await startHarness({ database: harness.database, cookieSecure: true })
    const client = await secure.studio('Secure Studio')
    expect(client.cookie).toMatch(/^__Host-/)
    expect((await client.send('GET', '/session')).status).toBe(200)
    const planted = new Client(secure.url, client.email)
    planted.cookie = client.cookie.replace('__Host-', '')
    expect((await planted.send('GET', '/session')).status).toBe(401)
    await secure.end()
  })
})

describe('a password', () => {
  const change = (client: Client, current: string, next: string) =>
    client.send('PATCH', '/password', { current, next })

  it('is changed by who knows the old one, and every other session ends', async () => {
    const client = await harness.studio('Changed Studio')
    const { other, open } = elsewhere(client, '192.0.2.40')
    other.cookie = (await open(client.password)).headers.getSetCookie()[0]?.split(';')[0] ?? ''
    const wrong = await change(client, 'not it', 'ferry steps at midnight')
    expect(wrong.problem.fields).toMatchObject([{ path: 'current' }])
    expect((await change(client, client.password, 'short')).problem.fields).toMatchObject([{ path: 'next' }])
    expect((await change(client, client.password, client.password)).status).toBe(422)
    expect((await change(client, client.password, 'ferry steps at midnight')).status).toBe(204)
    expect((await other.send('GET', '/session')).status).toBe(401)
    expect((await client.send('GET', '/session')).status).toBe(200)
    expect((await open(client.password)).status).toBe(401)
    expect((await open('ferry steps at midnight')).status).toBe(200)
  })

  it('is not guessed at a session that was left open', async () => {
    const client = await harness.studio('Left Open Studio')
    for (let i = 0; i < SIGN_IN_ATTEMPTS; i++) await change(client, `guess ${i}`, 'ferry steps at midnight')
    expect((await change(client, client.password, 'ferry steps at midnight')).status).toBe(429)
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
    expect((await client.roster()).rows).toEqual([])
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
