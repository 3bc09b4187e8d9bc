import mariadb, { type Connection } from 'mariadb'
import { Agent, createServer, request, type IncomingHttpHeaders, type RequestOptions } from 'node:http'
import type { AddressInfo } from 'node:net'
import { text } from 'node:stream/consumers'
import { setTimeout as sleep } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { pino } from 'pino'
import { v7 as uuid } from 'uuid'
import { API_BASE, CSRF_HEADER, IDEMPOTENCY_HEADER, type Page, type Session, type Student } from '#contracts'
import { createApp } from '../server/app'
import { openDatabase, type Database } from '../server/db/database'
import { migrate } from '../server/db/migrate'
import { DEMO_PASSWORD, seedDemo } from '../server/demo/seed'
import { seenTrail } from '../server/http/trail'

/** Whose file it was is looked up after the answer. */
const SEEN_MS = 100

/** The whole server on the demo's data, its statements as it sends them, and the database without it. */
export interface BenchServer {
  readonly base: string
  /** Where the built page is served. */
  readonly origin: string
  readonly database: Database
  readonly bare: Connection
  /** The statements that the server sends while something is asked of it, for the second time. */
  readonly written: (work: () => Promise<unknown>) => Promise<Statement[]>
  close(): Promise<void>
}

export async function startBenchServer(databaseUrl: string): Promise<BenchServer> {
  const statements: Statement[] = []
  let isListening = false
  const database = openDatabase(databaseUrl, {
    onStatement(sql, bound) {
      if (isListening) statements.push({ sql: sql.replace(/^Executing \([^)]*\): /, ''), bound })
    },
  })
  await migrate(database.sequelize)
  await seedDemo(database, new Date())
  const logger = pino({ level: 'silent' })
  const seen = seenTrail(database, logger)
  const app = createApp({
    database,
    seen,
    logger,
    now: () => new Date(),
    version: 'bench',
    sessionSecret: 'a secret for measuring, long enough',
    cookieSecure: false,
    trustProxy: 0,
    webRoot: fileURLToPath(new URL('../dist/web', import.meta.url)),
  })
  const server = createServer(app)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const origin = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  const bare = await mariadb.createConnection(connectionOf(databaseUrl))
  return {
    base: origin + API_BASE,
    origin,
    database,
    bare,
    async written(work) {
      // Once before: that it was looked at is written down a moment later, once an hour, and is no part of an answer.
      await work()
      await sleep(SEEN_MS)
      await seen.flush()
      statements.length = 0
      isListening = true
      await work()
      isListening = false
      return [...statements]
    },
    async close() {
      await bare.end()
      server.closeAllConnections()
      server.close()
      await database.close()
    },
  }
}

/** One statement as the server sent it. */
export interface Statement {
  readonly sql: string
  readonly bound: readonly unknown[]
}

export async function play(connection: Connection, statements: readonly Statement[]): Promise<void> {
  for (const { sql, bound } of statements) await connection.query(sql, [...bound])
}

interface Reply {
  readonly headers: IncomingHttpHeaders
  readonly body: string
}

function send(url: string, options: RequestOptions, body = ''): Promise<Reply> {
  return new Promise((resolve, reject) => {
    const outgoing = request(url, options, (incoming) => {
      text(incoming).then((received) => {
        if ((incoming.statusCode ?? 500) < 400) resolve({ headers: incoming.headers, body: received })
        else reject(new Error(`${url}: ${incoming.statusCode} ${received}`))
      }, reject)
    })
    outgoing.once('error', reject)
    outgoing.end(body)
  })
}

/** The barest client, signed in: what a browser's own costs on top is not the server's. */
export async function signIn(base: string, email: string) {
  const agent = new Agent({ keepAlive: true, maxSockets: 1 })
  const json = { 'content-type': 'application/json' }
  const opened = await send(
    `${base}/session`,
    { method: 'POST', headers: json, agent },
    JSON.stringify({ email, password: DEMO_PASSWORD }),
  )
  const cookie = opened.headers['set-cookie']?.[0]?.split(';')[0] ?? ''
  const session = JSON.parse(opened.body) as Session
  const get = async <T>(path: string) =>
    JSON.parse((await send(base + path, { headers: { cookie }, agent })).body) as T
  return {
    session,
    cookie,
    close: () => agent.destroy(),
    get,
    async post(path: string, body: unknown): Promise<unknown> {
      const headers = {
        ...json,
        cookie,
        [CSRF_HEADER]: session.csrfToken,
        [IDEMPOTENCY_HEADER]: uuid(),
      }
      return JSON.parse(
        (await send(base + path, { method: 'POST', headers, agent }, JSON.stringify(body))).body,
      )
    },
    async student(name: string): Promise<Student> {
      const student = (await get<Page<Student>>(`/students?q=${encodeURIComponent(name)}`)).rows[0]
      if (!student) throw new Error(`the demo studio has no ${name}`)
      return student
    },
  }
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
