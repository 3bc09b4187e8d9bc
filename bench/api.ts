import mariadb, { type Connection } from 'mariadb'
import { Agent, createServer, request, type IncomingHttpHeaders, type RequestOptions } from 'node:http'
import type { AddressInfo } from 'node:net'
import { text } from 'node:stream/consumers'
import { pino } from 'pino'
import { v7 as uuid } from 'uuid'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER, type Page, type Session, type Student } from '#contracts'
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
    agent.destroy()
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

/** The barest client: what a browser's own costs on top is not the server's. */
const agent = new Agent({ keepAlive: true, maxSockets: 1 })

interface Reply {
  readonly headers: IncomingHttpHeaders
  readonly body: string
}

function send(url: string, options: RequestOptions, body = ''): Promise<Reply> {
  return new Promise((resolve, reject) => {
    const outgoing = request(url, { ...options, agent }, (incoming) => {
      text(incoming).then((received) => {
        if ((incoming.statusCode ?? 500) < 400) resolve({ headers: incoming.headers, body: received })
        else reject(new Error(`${url}: ${incoming.statusCode} ${received}`))
      }, reject)
    })
    outgoing.once('error', reject)
    outgoing.end(body)
  })
}

async function signIn(base: string) {
  const json = { 'content-type': 'application/json' }
  const opened = await send(
    `${base}/session`,
    { method: 'POST', headers: json },
    JSON.stringify({ email: DEMO_EMAIL, password: DEMO_PASSWORD }),
  )
  const cookie = opened.headers['set-cookie']?.[0]?.split(';')[0] ?? ''
  const session = JSON.parse(opened.body) as Session
  const get = async <T>(path: string) =>
    JSON.parse((await send(base + path, { headers: { cookie } })).body) as T
  return {
    session,
    get,
    async post(path: string, body: unknown): Promise<unknown> {
      const headers = {
        ...json,
        cookie,
        [CSRF_HEADER]: session.csrfToken,
        [IDEMPOTENCY_HEADER]: uuid(),
      }
      return JSON.parse((await send(base + path, { method: 'POST', headers }, JSON.stringify(body))).body)
    },
    async student(name: string): Promise<Student> {
      const student = (await get<Page<Student>>(`/students?q=${encodeURIComponent(name)}`)).rows[0]
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
