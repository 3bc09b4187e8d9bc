import mariadb, { type Connection } from 'mariadb'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { pino } from 'pino'
import { v7 as uuid } from 'uuid'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER, type Session, type Student } from '#contracts'
import { createApp } from '../server/app'
import { openDatabase } from '../server/db/database'
import { migrate } from '../server/db/migrate'
import { DEMO_EMAIL, DEMO_PASSWORD, seedDemo } from '../server/demo/seed'
import { asyncRatioOf, type Ratio } from './ratio'

const READS = 40
const SAVES = 20
const AIM = 3

/**
 * A read and a save through the whole server against the same SQL sent straight through the connector: the statements
 * are written down while the server answers once, then played back. Ids in the save are made new each time.
 */
export async function apiAgainstSql(databaseUrl: string): Promise<Ratio[]> {
  const statements: Statement[] = []
  let isListening = false
  const database = openDatabase(databaseUrl, {
    onStatement(sql, bound) {
      if (isListening) statements.push({ sql: sql.replace(/^Executing \([^)]*\): /, ''), bound })
    },
  })
  await migrate(database.sequelize)
  await seedDemo(database, new Date())
  const app = createApp({
    database,
    logger: pino({ level: 'silent' }),
    now: () => new Date(),
    version: 'bench',
    sessionSecret: 'a secret for measuring, long enough',
    cookieSecure: false,
    trustProxy: 0,
  })
  const server = createServer(app)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const base = `http://127.0.0.1:${(server.address() as AddressInfo).port}${API_BASE}`
  const bare = await mariadb.createConnection(connectionOf(databaseUrl))
  try {
    const client = await signIn(base)
    const student = await client.student('Orla Venn')
    const written = async (work: () => Promise<unknown>) => {
      statements.length = 0
      isListening = true
      await work()
      isListening = false
      return [...statements]
    }

    const read = () => client.get(`/students/${student.id}`)
    const readSql = await written(read)
    const known = new Set(JSON.stringify([student, client.session, readSql]).match(UUID))
    const save = () => client.post(`/students/${student.id}/checks`, checkOn(student))
    const saveSql = await written(save)

    return [
      await asyncRatioOf(
        `API read / its ${readSql.length} statements`,
        () => times(READS, read),
        () => times(READS, () => play(bare, readSql)),
        AIM,
      ),
      await asyncRatioOf(
        `API save / its ${saveSql.length} statements`,
        () => times(SAVES, save),
        () => times(SAVES, () => play(bare, withNewIds(saveSql, known))),
        AIM,
      ),
    ]
  } finally {
    await bare.end()
    server.closeAllConnections()
    server.close()
    await database.close()
  }
}

/** One statement as the server sent it. */
interface Statement {
  readonly sql: string
  readonly bound: readonly unknown[]
}

async function play(connection: Connection, statements: readonly Statement[]): Promise<void> {
  for (const { sql, bound } of statements) await connection.query(sql, [...bound])
}

const UUID = /[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/g

/** The same save with new ids for the rows it made, which are the ids that nothing read or wrote before it inserted them. */
function withNewIds(statements: readonly Statement[], known: ReadonlySet<string>): Statement[] {
  const made = new Map<string, string>()
  const renew = (text: string) =>
    text.replace(UUID, (id) => {
      if (known.has(id)) return id
      const fresh = made.get(id) ?? uuid()
      made.set(id, fresh)
      return fresh
    })
  return statements.map(({ sql, bound }) => ({
    sql: renew(sql),
    bound: bound.map((value) => (typeof value === 'string' ? renew(value) : value)),
  }))
}

async function signIn(base: string) {
  const response = await fetch(`${base}/session`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ email: DEMO_EMAIL, password: DEMO_PASSWORD }),
  })
  const cookie = response.headers.getSetCookie()[0]?.split(';')[0] ?? ''
  const session = (await response.json()) as Session
  async function answer<T>(path: string, init: RequestInit): Promise<T> {
    const reply = await fetch(`${base}${path}`, init)
    if (!reply.ok) throw new Error(`${path}: ${reply.status} ${await reply.text()}`)
    return (await reply.json()) as T
  }
  const get = <T>(path: string) => answer<T>(path, { headers: { cookie } })
  return {
    session,
    get,
    post: (path: string, body: unknown) =>
      answer(path, {
        method: 'POST',
        headers: {
          cookie,
          [CSRF_HEADER]: session.csrfToken,
          [IDEMPOTENCY_HEADER]: uuid(),
          'content-type': 'application/json',
        },
        body: JSON.stringify(body),
      }),
    async student(name: string): Promise<Student> {
      const student = (await get<Student[]>('/students')).find((s) => s.name === name)
      if (!student) throw new Error(`the demo studio has no ${name}`)
      return student
    },
  }
}

function checkOn(student: Student) {
  return {
    instrumentId: student.instrument?.id,
    takenAt: new Date().toISOString(),
    exercise: { kind: 'shape', string: 'A4', shapeId: 'first' },
    system: 'fifths',
    readings: [7, 13, -6, -20].map((shownCents, i) => ({ finger: i + 1, shownCents })),
  }
}

async function times(n: number, work: () => Promise<unknown>): Promise<void> {
  for (let i = 0; i < n; i++) await work()
}

function connectionOf(databaseUrl: string) {
  const url = new URL(databaseUrl)
  return {
    host: url.hostname,
    port: Number(url.port),
    user: decodeURIComponent(url.username),
    password: decodeURIComponent(url.password),
    database: url.pathname.slice(1),
  }
}
