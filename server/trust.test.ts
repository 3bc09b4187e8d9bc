import { QueryTypes } from 'sequelize'
import { Secret, TOTP } from 'otpauth'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import {
  ROUTES,
  type AuditPage,
  type Check,
  type Endpoint,
  type OneTimeKey,
  type Person,
  type RouteName,
  type SecondFactor,
  type SecondFactorKey,
  type Session,
  type Student,
} from '#contracts'
import { ENDPOINTS } from '#contracts/endpoints'
import { LEAVING_STUDIO } from './db/append-only'
import { periodOf, SPARE_CODES } from './features/session/second-factor'
import { secretsOf } from './http/secrets'
import { SIGN_IN_ATTEMPTS, SIGN_IN_ATTEMPTS_AT_ALL, SIGN_IN_WINDOW_MS } from './http/rate-limit'
import { Client, checkDraft, silence, startHarness, type Harness } from './testing/harness'

const SECRET = 'a secret of the tests, long enough'
const STRONG = 'ferry steps at midnight'

let harness: Harness
beforeAll(async () => (harness = await startHarness({ trustProxy: 1 })))
afterAll(() => harness.close())

const later = (ms: number) => (harness.clock = new Date(harness.clock.getTime() + ms))
const from = (address: string) => ({ headers: { 'x-forwarded-for': address } })
const codeFor = ({ secret }: SecondFactorKey, at = harness.clock) =>
  new TOTP({ secret: Secret.fromBase32(secret) }).generate({ timestamp: at.getTime() })

const newEmail = () => `${crypto.randomUUID()}@harbour.example`

/** An owner with a teacher who has chosen a password. */
async function studioOfTwo(name: string) {
  const owner = await harness.studio(name)
  const email = newEmail()
  const invited = await owner.make<{ person: Person; key: OneTimeKey }>('POST', '/people', {
    name: 'Wren Tallow',
    email,
  })
  const teacher = new Client(harness.url, email, STRONG)
  const opened = await teacher.send('POST', '/key', { email, key: invited.key.key, password: STRONG })
  teacher.cookie = opened.headers.getSetCookie()[0]?.split(';')[0] ?? ''
  teacher.session = opened.body as Session
  return { owner, teacher, invited, opened }
}

describe('a second factor', () => {
  it('takes the codes of RFC 6238, appendix B, for half a minute either way', () => {
    const secret = new Secret({ buffer: new TextEncoder().encode('12345678901234567890').buffer }).base32
    // Time (s) and the last six of the eight figures that the table has for SHA-1.
    const table = [
      [59, '287082'],
      [1111111109, '081804'],
      [1111111111, '050471'],
      [1234567890, '005924'],
      [2000000000, '279037'],
      [20000000000, '353130'],
    ] as const
    for (const [time, code] of table) {
      const period = Math.floor(time / 30)
      for (const off of [-30, 0, 30])
        expect(periodOf(secret, code, new Date((time + off) * 1000)), `${time} ${off}`).toBe(period)
      for (const off of [-61, 61])
        expect(periodOf(secret, code, new Date((time + off) * 1000))).toBeUndefined()
    }
  })

  it('is asked for from the first confirmed code on; each code opens once, and so does each spare one', async () => {
    const client = await harness.studio('Two Factors')
    const wrong = await client.send('POST', '/second-factor', { current: 'not it' })
    expect(wrong.problem.fields?.[0]?.path).toBe('current')
    const key = await client.make<SecondFactorKey>('POST', '/second-factor', { current: client.password })
    expect(key.uri).toMatch(/^otpauth:\/\/totp\/Jadefell:/)
    // Begun is not on: whoever loses the thread here still signs in.
    expect((await client.signIn()).status).toBe(200)
    expect((await client.send('POST', '/second-factor/confirm', { code: '000000' })).problem.code).toBe(
      'wrong_code',
    )
    const { codes } = await client.make<{ codes: string[] }>('POST', '/second-factor/confirm', {
      code: codeFor(key),
    })
    expect(new Set(codes).size).toBe(SPARE_CODES)
    expect((await client.send('POST', '/second-factor', { current: client.password })).status).toBe(422)

    const open = (code?: string) =>
      client.send('POST', '/session', {
        email: client.email,
        password: client.password,
        ...(code ? { code } : {}),
      })
    expect((await open()).problem.code).toBe('code_needed')
    // Seen over a shoulder: it was used for confirming.
    expect((await open(codeFor(key))).problem.code).toBe('wrong_code')
    later(60_000)
    expect((await open(codeFor(key))).status).toBe(200)
    expect((await open(codeFor(key))).problem.code).toBe('wrong_code')
    expect((await open(codes[0]!.toLowerCase().replace('-', ' '))).status).toBe(200)
    expect((await open(codes[0])).problem.code).toBe('wrong_code')
    await client.signIn()
    client.session = (await open(codes[1])).body as Session
    const kept = await harness.database.models.secondFactor.findAll({
      where: { studioId: client.studioId },
      raw: true,
    })
    const text = JSON.stringify([
      kept,
      await harness.database.models.spareCode.findAll({ where: { studioId: client.studioId }, raw: true }),
    ])
    for (const secret of [key.secret, codes[2]!, codes[2]!.replace('-', '')])
      expect(text).not.toContain(secret)
  })

  it('costs no attempt by being asked for, and is guessed no faster than a password', async () => {
    const client = await harness.studio('Guessed Codes')
    const key = await client.make<SecondFactorKey>('POST', '/second-factor', { current: client.password })
    await client.make('POST', '/second-factor/confirm', { code: codeFor(key) })
    const elsewhere = new Client(harness.url, client.email)
    const open = (code?: string) =>
      elsewhere.send(
        'POST',
        '/session',
        { email: client.email, password: client.password, ...(code ? { code } : {}) },
        from('192.0.2.77'),
      )
    for (let i = 0; i < SIGN_IN_ATTEMPTS + 2; i++) expect((await open()).problem.code).toBe('code_needed')
    for (let i = 0; i < SIGN_IN_ATTEMPTS; i++) expect((await open('111111')).problem.code).toBe('wrong_code')
    later(60_000)
    expect((await open(codeFor(key))).status).toBe(429)
    expect((await client.make<SecondFactor>('GET', '/second-factor')).spareCodes).toBe(SPARE_CODES)
    await client.make('POST', '/second-factor/end', { current: client.password })
    later(SIGN_IN_WINDOW_MS)
    expect((await open()).status).toBe(200)
  })
})

it('lets nobody’s guesses from elsewhere keep a teacher out who came in from this browser before', async () => {
  const client = await harness.studio('Kept Out')
  const known = await client.signIn()
  const marks = known.headers
    .getSetCookie()
    .map((cookie) => cookie.split(';')[0])
    .join('; ')
  const guesser = new Client(harness.url, client.email)
  for (let i = 0; i < SIGN_IN_ATTEMPTS_AT_ALL; i++)
    await guesser.send('POST', '/session', { email: client.email, password: 'guess' }, from(`203.0.113.${i}`))
  const right = { email: client.email, password: client.password }
  const fresh = new Client(harness.url, client.email)
  expect((await fresh.send('POST', '/session', right, from('198.51.100.1'))).status).toBe(429)
  const own = new Client(harness.url, client.email)
  own.cookie = marks
  expect((await own.send('POST', '/session', right, from('198.51.100.2'))).status).toBe(200)
  // The mark of one account is none of another, and guesses from a known browser are counted as any.
  const other = await harness.studio('Not Marked')
  for (let i = 0; i < SIGN_IN_ATTEMPTS_AT_ALL; i++)
    await guesser.send('POST', '/session', { email: other.email, password: 'guess' }, from(`203.0.113.${i}`))
  expect(
    (await own.send('POST', '/session', { ...right, email: other.email }, from('198.51.100.3'))).status,
  ).toBe(429)
  for (let i = 0; i < SIGN_IN_ATTEMPTS; i++)
    await own.send('POST', '/session', { ...right, password: 'guess' }, from(`198.51.100.${10 + i}`))
  expect((await own.send('POST', '/session', right, from('198.51.100.50'))).status).toBe(429)
})

it('refuses a password that many take, or that is one’s own name', async () => {
  const client = await harness.studio('Weak Words')
  for (const next of ['password1234', 'qwertyuiop12', '1234567890', 'harbour2026!'])
    expect(
      (await client.send('PATCH', '/password', { current: client.password, next })).problem.fields?.[0]?.path,
      next,
    ).toBe('next')
  await client.make('PATCH', '/password', { current: client.password, next: STRONG })
})

it('keeps who is signed in when the secret changes, while the one before is known, and no longer', async () => {
  const client = await harness.studio('Rotated')
  const next = 'another secret of the tests, as long'
  const during = await startHarness({
    database: harness.database,
    sessionSecret: next,
    sessionSecretBefore: SECRET,
  })
  client.url = during.url
  // A change carries the session's own token: that of before still holds.
  const { student } = await client.player('Still Here')
  expect((await client.send('GET', `/students/${student.id}`)).status).toBe(200)
  await during.end()
  const after = await startHarness({ database: harness.database, sessionSecret: next })
  client.url = after.url
  expect((await client.send('GET', '/session')).status).toBe(401)
  await after.end()
  const [old, both] = [secretsOf(SECRET), secretsOf(next, SECRET)]
  expect(both.unseal('x', old.seal('x', 'told'))).toBe('told')
  expect(secretsOf(next).unseal('x', old.seal('x', 'told'))).toBeUndefined()
  expect(old.unseal('y', old.seal('x', 'told'))).toBeUndefined()
})

describe('who teaches in a studio', () => {
  it('comes in by a key that an owner gives, which opens once and for two days', async () => {
    const { owner, teacher, invited, opened } = await studioOfTwo('Two Teachers')
    expect(invited.person).toMatchObject({ role: 'teacher', hasPassword: false, leftAt: null })
    expect(teacher.session?.user.role).toBe('teacher')
    expect(opened.status).toBe(200)
    const use = (key: string) =>
      teacher.send('POST', '/key', { email: teacher.email, key, password: 'another long sentence' })
    expect((await use(invited.key.key)).problem.code).toBe('wrong_key')
    const rows = await harness.database.models.oneTimeKey.findAll({
      where: { studioId: owner.studioId },
      raw: true,
    })
    expect(JSON.stringify(rows)).not.toContain(invited.key.key)
    const give = () => owner.make<OneTimeKey>('POST', `/people/${invited.person.id}/key`)
    const [first, second] = [await give(), await give()]
    expect((await use(first.key)).problem.code).toBe('wrong_key')
    later(48 * 3600_000)
    expect((await use(second.key)).problem.code).toBe('wrong_key')
    const third = await give()
    later(48 * 3600_000 - 60_000)
    expect((await use(third.key.replaceAll('-', ' ').toLowerCase())).status).toBe(200)
    // Whoever had the old password, or a session by it, is out.
    expect((await new Client(harness.url, teacher.email, STRONG).signIn()).status).toBe(401)
    expect((await use(third.key)).status).toBe(401)
  })

  it('has owners’ doors shut to everybody else, on every route that needs one', async () => {
    const { owner, teacher, invited } = await studioOfTwo('Owners Only')
    const owners = (Object.keys(ROUTES) as RouteName[]).filter(
      (name) => (ENDPOINTS[name] as Endpoint).needs === 'owner',
    )
    expect(owners.length).toBeGreaterThan(4)
    for (const name of owners) {
      const [method, path] = ROUTES[name]
      const [example] = ((ENDPOINTS[name] as Endpoint).body?.meta()?.examples ?? []) as object[]
      // An address is somebody’s once for all studios, and others send the examples as well.
      const body = example && 'email' in example ? { ...example, email: newEmail() } : example
      const asked = path.replace(':userId', invited.person.id)
      expect((await teacher.send(method, asked, body)).problem.code, name).toBe('not_allowed')
      expect((await owner.send(method, asked, body)).status, name).toBeLessThan(300)
    }
  })

  it('is out at once where they have left, comes back, and leaves the studio an owner', async () => {
    const { owner, teacher, invited } = await studioOfTwo('Leaving')
    const people = await owner.make<Person[]>('GET', '/people')
    const self = people.find(({ isSelf }) => isSelf)!
    const change = (id: string, body: object) => owner.send('PATCH', `/people/${id}`, body)
    expect((await change(self.id, { hasLeft: true })).problem.code).toBe('last_owner')
    expect((await change(self.id, { role: 'teacher' })).problem.code).toBe('last_owner')
    expect((await change(invited.person.id, { hasLeft: true })).status).toBe(200)
    expect((await teacher.send('GET', '/students')).status).toBe(401)
    expect((await teacher.signIn()).status).toBe(401)
    expect((await owner.send('POST', `/people/${invited.person.id}/key`)).status).toBe(404)
    expect((await owner.send('POST', '/people', { name: 'W', email: teacher.email })).problem.code).toBe(
      'taken_meanwhile',
    )
    await change(invited.person.id, { hasLeft: false, role: 'owner' })
    expect((await teacher.signIn()).status).toBe(200)
    expect((await change(self.id, { role: 'teacher' })).status).toBe(200)
    // An owner no more, on this very session.
    expect((await owner.send('GET', '/people')).problem.code).toBe('not_allowed')
  })

  it('keeps an owner where two end one another at the same moment', async () => {
    const { owner, teacher, invited } = await studioOfTwo('Two Owners')
    await owner.make('PATCH', `/people/${invited.person.id}`, { role: 'owner' })
    const self = (await owner.make<Person[]>('GET', '/people')).find(({ isSelf }) => isSelf)!
    await Promise.all([
      owner.send('PATCH', `/people/${invited.person.id}`, { role: 'teacher' }),
      teacher.send('PATCH', `/people/${self.id}`, { role: 'teacher' }),
    ])
    const left = await harness.database.models.user.count({
      where: { studioId: owner.studioId, role: 'owner' },
    })
    expect(left).toBeGreaterThan(0)
  })
})

describe('who saw and changed what', () => {
  const trail = (client: Client, query = '') => client.make<AuditPage>('GET', `/audit?${query}`)
  /** What was seen is written a moment after the answer. */
  async function settled(client: Client, deed: string): Promise<AuditPage> {
    for (let tries = 0; tries < 200; tries++) {
      const page = await trail(client)
      if (page.entries.some((entry) => entry.deed === deed)) return page
      await new Promise((resolve) => setTimeout(resolve, 25))
    }
    throw new Error(`${deed} was never written down`)
  }

  it('is kept by teacher and student, also where a path names only a check or a file, and holds nothing typed', async () => {
    const { owner, teacher } = await studioOfTwo('Trail')
    const { student, instrument } = await teacher.player('Zephyrine Quay')
    const check = await teacher.make<Check>(
      'POST',
      `/students/${student.id}/checks`,
      checkDraft(instrument.id),
    )
    await teacher.allowSound(student)
    const file = await teacher.make<{ id: string }>('POST', `/attachments/check/${check.id}`, silence())
    await teacher.send('GET', `/attachments/${file.id}`)
    await teacher.send('GET', `/attachments/${file.id}`)
    await teacher.make('DELETE', `/checks/${check.id}`)
    const { entries } = await settled(owner, 'attachments.read')
    const of = (deed: string) => entries.filter((entry) => entry.deed === deed)
    for (const deed of ['checks.create', 'attachments.create', 'attachments.read', 'checks.remove'])
      expect(of(deed), deed).toMatchObject([
        { by: 'Wren Tallow', student: 'Zephyrine Quay', studentId: student.id },
      ])
    expect(of('checks.create')[0]?.subjectId).toBe(check.id)
    expect(of('students.create')[0]?.studentId).toBe(student.id)
    expect(of('key.use')[0]?.by).toBe('Wren Tallow')
    const rows = await harness.database.models.audit.findAll({
      where: { studioId: owner.studioId },
      raw: true,
    })
    expect(JSON.stringify(rows)).not.toMatch(/Zephyrine|Wren|harbour/)

    const bySeen = await trail(owner, `studentId=${student.id}`)
    expect(bySeen.entries.every((entry) => entry.studentId === student.id)).toBe(true)
    const seen = await owner.make<AuditPage>('GET', '/audit?kind=seen')
    expect(new Set(seen.entries.map(({ deed }) => ROUTES[deed as RouteName][0]))).toEqual(new Set(['GET']))
  })

  it('notes a save once, however often it is sent, and none that was refused', async () => {
    const owner = await harness.studio('Once')
    const send = () =>
      owner.send('POST', '/students', { name: 'Orla Venn', family: 'violin' }, { key: 'the-same-key' })
    await send()
    await send()
    const { id } = (await send()).body as Student
    await owner.send('PATCH', `/students/${id}`, { version: 9, name: 'Other' })
    const { entries } = await trail(owner, 'kind=changed')
    expect(entries.map(({ deed }) => deed)).toEqual(['students.create', 'session.open'])
  })

  it('notes that somebody was refused, and comes page by page, the newest first', async () => {
    const owner = await harness.studio('Refused')
    const guesser = new Client(harness.url, owner.email)
    for (let i = 0; i < 3; i++)
      await guesser.send('POST', '/session', { email: owner.email, password: 'guess' })
    const first = await trail(owner, 'limit=2')
    const second = await trail(owner, `limit=2&before=${first.entries[1]!.id}`)
    const deeds = [...first.entries, ...second.entries].map(({ deed }) => deed)
    expect(deeds).toEqual(['session.refused', 'session.refused', 'session.refused', 'session.open'])
    expect([first.hasMore, second.hasMore]).toEqual([true, false])
  })

  it('is never changed and not forgotten early: the database itself refuses', async () => {
    const owner = await harness.studio('Append Only')
    const run = (sql: string, replacements: unknown[] = [owner.studioId]) =>
      harness.database.sequelize.query(sql, { replacements, type: QueryTypes.RAW })
    await expect(run('UPDATE audit SET user_id = NULL WHERE studio_id = ?')).rejects.toThrow(/never changed/)
    await expect(run('DELETE FROM audit WHERE studio_id = ?')).rejects.toThrow(/is kept/)
    // A studio that is taken away takes its trail along, and no other's.
    const other = await harness.studio('Stays')
    await harness.database.inTransaction(async (transaction) => {
      const within = (sql: string, id: string) =>
        harness.database.sequelize.query(sql, { replacements: [id], type: QueryTypes.RAW, transaction })
      await within(LEAVING_STUDIO, owner.studioId)
      await within('DELETE FROM audit WHERE studio_id = ?', owner.studioId)
      await expect(within('DELETE FROM audit WHERE studio_id = ?', other.studioId)).rejects.toThrow(/is kept/)
      await harness.database.sequelize.query('SET @leaving_studio = NULL', { transaction })
    })
  })
})
