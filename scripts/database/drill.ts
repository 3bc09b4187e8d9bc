import { createHash, randomBytes } from 'node:crypto'
import { copyFileSync, createReadStream, mkdtempSync, rmSync } from 'node:fs'
import { createServer } from 'node:http'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { pino } from 'pino'
import { v7 as uuid } from 'uuid'
import { API_BASE, type Page, type Student } from '#contracts'
import { createApp } from '../../server/app'
import { openDatabase, type Database } from '../../server/db/database'
import type { UserRow } from '../../server/db/rows'
import { secretsOf } from '../../server/http/secrets'
import { backup, dump, type BackupOptions } from './backup'
import { readBackup } from './backup-file'
import { bringUpToDate, connect, emptySchemas, insistOnCounts, load } from './beside'
import { isLocked, unlockFile } from './locked-file'
import { tornTables } from './torn-tables'

/** One thing that a drill has shown, or not. */
export interface DrillStep {
  readonly isSound: boolean
  readonly said: string
}

export interface DrillReport {
  readonly at: string
  readonly isSound: boolean
  readonly steps: readonly DrillStep[]
  readonly seconds: number
}

export interface DrillOptions extends BackupOptions {
  /** A backup that lies somewhere; without one, one is made for the drill. */
  readonly file?: string
  readonly say?: (line: string) => void
  /** May give rights on the schema beside. */
  readonly allow?: (schemas: readonly string[]) => Promise<void>
}

/**
 * Puts a backup back without touching what is in use, into a schema beside it, and has it say what it is good for: whole, of this
 * installation, every row, the same bytes when it is written out again, sound tables, and a server on it that answers. What it
 * found is kept for whoever runs the server.
 */
export async function drill(url: URL, options: DrillOptions = {}): Promise<DrillReport> {
  const { say = () => {}, allow = () => Promise.resolve() } = options
  const began = performance.now()
  const steps: DrillStep[] = []
  const beside = new URL(url)
  beside.pathname = `${url.pathname}_drill`
  const schema = beside.pathname.slice(1)
  const folder = mkdtempSync(join(tmpdir(), 'jadefell-drill-'))
  await allow([schema])
  const connection = await connect(url)
  /** Runs one step; what it returns is what it has shown. */
  const step = async (work: () => Promise<string>) => {
    const done = await work().then(
      (said) => ({ isSound: true, said }),
      (error: unknown) => ({ isSound: false, said: (error as Error).message }),
    )
    steps.push(done)
    say(`${done.isSound ? 'sound' : 'NOT SOUND'}: ${done.said}`)
    return done.isSound
  }
  try {
    const plain = join(folder, 'plain.sql')
    const isThere =
      (await step(() => fetchBackup(url, plain, options))) &&
      (await step(() => wholeness(plain, options))) &&
      (await step(async () => {
        const read = await readBackup(plain)
        await emptySchemas(connection, [schema])
        await load(url, schema, plain)
        await insistOnCounts(connection, schema, read.ok ? read.seal : undefined)
        return 'it loads, and every table has as many rows as were written'
      })) &&
      (await step(() => sameBytes(beside, plain, join(folder, 'again.sql'))))
    if (isThere)
      await step(async () => {
        await bringUpToDate(url, schema, () => {})
        const database = openDatabase(beside.href, { poolSize: 4 })
        try {
          const torn = await tornTables(database)
          if (torn.length > 0) throw new Error(`these tables are not sound: ${torn.join(', ')}`)
          return await answers(database)
        } finally {
          await database.close()
        }
      })
  } finally {
    await connection.query(`DROP DATABASE IF EXISTS \`${schema}\``).catch(() => {})
    await connection.end()
    rmSync(folder, { recursive: true, force: true })
  }
  const report: DrillReport = {
    at: new Date().toISOString(),
    isSound: steps.every(({ isSound }) => isSound),
    steps,
    seconds: Math.round((performance.now() - began) / 1000),
  }
  await keepReport(url, report)
  return report
}

async function fetchBackup(url: URL, plain: string, options: DrillOptions): Promise<string> {
  const { file, passphrase } = options
  if (file === undefined) {
    await backup(url, plain, options.signer ? { signer: options.signer } : {})
    return 'a backup was made for it'
  }
  if (!isLocked(file)) {
    copyFileSync(file, plain)
    return `${file} is there, and anybody who has it can read it`
  }
  if (passphrase === undefined) throw new Error(`${file} is locked: give its passphrase`)
  await unlockFile(file, plain, passphrase)
  return `${file} opens with its passphrase`
}

async function wholeness(plain: string, { signer }: DrillOptions): Promise<string> {
  const read = await readBackup(plain, signer?.publicKey)
  if (!read.ok) throw new Error(read.reason)
  if (!read.seal)
    return 'it has its end; that nothing in it was changed, an earlier version did not write down'
  const total = Object.values(read.seal.rows).reduce((sum, n) => sum + n, 0)
  const by = { this: 'this installation', another: 'ANOTHER installation', nobody: 'nobody' }[read.signedBy]
  return `it is whole, ${total} rows, and signed by ${by}`
}

/** What was loaded, written out again: the very same bytes, so nothing was lost on the way in. */
async function sameBytes(beside: URL, plain: string, again: string): Promise<string> {
  await dump(beside, again)
  const read = await readBackup(plain)
  const [written, loaded] = [read.ok ? read.seal?.sha256 : undefined, await sha256Of(again)]
  if (written === undefined) return 'of an earlier version: it was not compared byte by byte'
  if (written !== loaded) throw new Error('written out again it is not the same')
  return 'written out again it is the same, byte by byte'
}

async function sha256Of(file: string): Promise<string> {
  const hash = createHash('sha256')
  for await (const chunk of createReadStream(file) as AsyncIterable<Buffer>) hash.update(chunk)
  return hash.digest('hex')
}

/** A server on what was loaded, asked by a teacher of each studio for its students and the first one's file. */
async function answers(database: Database): Promise<string> {
  const secret = randomBytes(32).toString('hex')
  const app = createApp({
    database,
    logger: pino({ level: 'silent' }),
    now: () => new Date(),
    version: 'drill',
    sessionSecret: secret,
    cookieSecure: false,
    trustProxy: 0,
    checkAnswers: true,
  })
  const server = createServer(app)
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const url = `http://127.0.0.1:${(server.address() as AddressInfo).port}${API_BASE}`
  let students = 0
  try {
    const users = (await database.models.user.findAll({ raw: true })) as unknown as UserRow[]
    const studios = new Map(users.map((user) => [user.studioId, user]))
    for (const { id: userId, studioId } of studios.values()) {
      const token = randomBytes(16).toString('hex')
      const now = new Date()
      await database.models.session.create({
        id: secretsOf(secret).hash('session', token),
        publicId: uuid(),
        studioId,
        userId,
        device: 'unknown',
        createdAt: now,
        seenAt: now,
        expiresAt: new Date(now.getTime() + 3600_000),
      })
      const ask = async <T>(path: string): Promise<T> => {
        const response = await fetch(`${url}${path}`, { headers: { cookie: `jadefell_session=${token}` } })
        if (!response.ok) throw new Error(`a server on it answers ${path} with ${response.status}`)
        return (await response.json()) as T
      }
      const { total, rows } = await ask<Page<Student>>('/students')
      students += total
      for (const one of rows.slice(0, 1)) {
        await ask(`/students/${one.id}`)
        await ask(`/students/${one.id}/checks`)
      }
    }
    return `its tables are sound, and a server on it answers: ${students} students in ${studios.size} ${studios.size === 1 ? 'studio' : 'studios'}`
  } finally {
    await new Promise((resolve) => server.close(resolve))
  }
}

async function keepReport(url: URL, report: DrillReport): Promise<void> {
  const database = openDatabase(url.href, { poolSize: 1 })
  try {
    await database.models.operation.create({
      id: uuid(),
      kind: 'drill',
      at: new Date(report.at),
      isSound: report.isSound,
      report,
    })
  } finally {
    await database.close()
  }
}
