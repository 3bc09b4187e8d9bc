// `npm run bench:load`: 200 teachers at the pace of lessons, on one machine with everything on it. Each keeps a check twice a minute
// and looks four times at a file in between; every request is due at its time, whether the one before is answered or not, and
// its time counts from when it was due. Beside it: the same saves as bare statements; two servers in place of one; three nodes in place of one.
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import mariadb from 'mariadb'
import { startCluster } from '../scripts/database/cluster'
import { openDataDirectory } from '../scripts/database/data-directory'
import { portToKeep, startPrivateServer } from '../scripts/database/private-server'
import { databasePrograms } from '../scripts/database/programs'
import { API_BASE, type Page, type Student } from '#contracts'
import { addressOf, readAddress } from '../server/db/hosts'
import { DEMO_EMAIL } from '../server/demo/seed'
import { checkOn, withNewIds } from './api'
import { play, signIn, startBenchServer, type Statement } from './server'

const TEACHERS = 200
const SAVE_EVERY_S = 30
const LOOKS_A_SAVE = 4
const LASTS_S = 45
const WARM_UP_S = 8
const CONNECTIONS = 10

/** What the issue of scale asks for. */
const SAVE_P95_MS = 150
const AGAINST_SQL = 2
const SECOND_SERVER = 1.1

interface Told {
  readonly saves: number
  readonly p95Ms: number
  readonly medianMs: number
}

const path = mkdtempSync(join(tmpdir(), 'jadefell-load-'))
const above: string[] = []
try {
  const one = await startPrivateServer(openDataDirectory(join(path, 'one')), databasePrograms, () => {})
  const recorded = await recordSave(one.url)
  console.log('| 200 teachers | saves | median, ms | p95, ms |')
  console.log('|---|---:|---:|---:|')
  const alone = await withServers(1, one.url, (bases) => teach('one server, one node', bases))
  const bare = await bareSaves('the same saves as bare SQL', one.url, recorded)
  const two = await withServers(2, one.url, (bases) => teach('two servers, one node', bases))
  await one.stop()
  const cluster = await startCluster(join(path, 'cluster'))
  await recordSave(addressOf(cluster.url, readAddress(cluster.url)!.hosts[0]!))
  const three = await withServers(1, cluster.url, (bases) => teach('one server, three nodes', bases))
  await cluster.stop()
  const ratio = (a: Told, b: Told) => a.medianMs / b.medianMs
  console.log(
    `\np95 of a save ${alone.p95Ms.toFixed(0)} ms (≤ ${SAVE_P95_MS}), ${(alone.p95Ms / bare.p95Ms).toFixed(2)} × its bare SQL (≤ ${AGAINST_SQL}).`,
  )
  console.log(
    `A second server costs a request ${ratio(two, alone).toFixed(2)} × (≤ ${SECOND_SERVER}); three nodes ${ratio(three, alone).toFixed(2)} ×.`,
  )
  if (alone.p95Ms > SAVE_P95_MS) above.push('p95 of a save')
  if (alone.p95Ms > AGAINST_SQL * bare.p95Ms) above.push('a save against its SQL')
  if (ratio(two, alone) > SECOND_SERVER) above.push('a second server')
} finally {
  rmSync(path, { recursive: true, force: true })
}
for (const one of above) console.error(`Above its aim: ${one}.`)
if (above.length > 0) process.exitCode = 1

/** Makes the demo there, and writes down what one save asks of the database. */
async function recordSave(url: string): Promise<{ statements: Statement[]; known: ReadonlySet<string> }> {
  const app = await startBenchServer(url)
  const client = await signIn(app.base, DEMO_EMAIL)
  const student = await client.student('Orla Venn')
  const readSql = await app.written(() => client.get(`/students/${student.id}`))
  const known = new Set(JSON.stringify([student, client.session, readSql]).match(/[0-9a-f-]{36}/g))
  const statements = await app.written(() => client.post(`/students/${student.id}/checks`, checkOn(student)))
  client.close()
  await app.close()
  return { statements, known }
}

async function withServers<T>(count: number, url: string, work: (bases: string[]) => Promise<T>): Promise<T> {
  const running: ChildProcess[] = []
  try {
    const bases: string[] = []
    for (let nth = 0; nth < count; nth++) {
      const port = await portToKeep()
      running.push(
        spawn(process.execPath, ['--import', 'tsx', 'server/serve.ts'], {
          stdio: ['ignore', 'ignore', 'inherit'],
          env: {
            ...process.env,
            PORT: String(port),
            HOST: '127.0.0.1',
            DATABASE_URL: url,
            SESSION_SECRET: 'a secret for measuring, long enough',
            LOG_LEVEL: 'silent',
          },
        }),
      )
      bases.push(`http://127.0.0.1:${port}${API_BASE}`)
    }
    for (const base of bases)
      while (
        !(await fetch(`${base}/live`).then(
          (r) => r.ok,
          () => false,
        ))
      )
        await sleep(100)
    return await work(bases)
  } finally {
    for (const child of running) {
      const gone = new Promise((resolve) => child.once('exit', resolve))
      child.kill('SIGTERM')
      await gone
    }
  }
}

async function teach(name: string, bases: readonly string[]): Promise<Told> {
  // Half of them to each server; to sign in takes a processor a while, and is no part of a lesson.
  const clients: Awaited<ReturnType<typeof signIn>>[] = []
  for (let nth = 0; nth < TEACHERS; nth++) clients.push(await signIn(bases[nth % bases.length]!, DEMO_EMAIL))
  const { rows } = await clients[0]!.get<Page<Student>>('/students?limit=50')
  const lent = rows.filter(
    ({ instrument, removedAt }) =>
      instrument?.measurement && removedAt === null && instrument.family === 'violin',
  )
  const told = await atPace(name, (teacher) => {
    const [client, student] = [clients[teacher]!, lent[teacher % lent.length]!]
    return {
      save: () => client.post(`/students/${student.id}/checks`, checkOn(student)),
      look: () => client.get(`/students/${student.id}`),
    }
  })
  for (const client of clients) client.close()
  return told
}

async function bareSaves(
  name: string,
  url: string,
  { statements, known }: Awaited<ReturnType<typeof recordSave>>,
): Promise<Told> {
  const { hosts, ...who } = readAddress(url)!
  const pool = mariadb.createPool({ ...who, ...hosts[0]!, connectionLimit: CONNECTIONS })
  const run = async (sql: readonly Statement[]) => {
    const connection = await pool.getConnection()
    try {
      await play(connection, sql)
    } finally {
      await connection.release()
    }
  }
  const looks = statements.filter(({ sql }) => sql.startsWith('SELECT'))
  const told = await atPace(name, () => ({
    save: () => run(withNewIds(statements, known)),
    look: () => run(looks),
  }))
  await pool.end()
  return told
}

/** Everything at its time, evenly spread over the teachers; the first seconds warm up and are not counted. */
async function atPace(
  name: string,
  of: (teacher: number) => { save: () => Promise<unknown>; look: () => Promise<unknown> },
): Promise<Told> {
  const took: number[] = []
  const under: Promise<unknown>[] = []
  const everyMs = (SAVE_EVERY_S * 1000) / (LOOKS_A_SAVE + 1)
  const began = performance.now()
  const due = Array.from({ length: TEACHERS }, (_, teacher) => (teacher / TEACHERS) * everyMs)
  for (let step = 0; (step * everyMs) / 1000 < WARM_UP_S + LASTS_S; step++)
    for (const [teacher, first] of due.entries()) {
      const at = first + step * everyMs
      await sleep(Math.max(0, at - (performance.now() - began)))
      const { save, look } = of(teacher)
      const isSave = (step + teacher) % (LOOKS_A_SAVE + 1) === 0
      const request = (isSave ? save() : look()).then(() => {
        if (isSave && at / 1000 > WARM_UP_S) took.push(performance.now() - began - at)
      })
      under.push(request)
    }
  await Promise.all(under)
  took.sort((a, b) => a - b)
  const at = (part: number) => took[Math.ceil(part * took.length) - 1]!
  const told = { saves: took.length, p95Ms: at(0.95), medianMs: at(0.5) }
  console.log(`| ${name} | ${told.saves} | ${told.medianMs.toFixed(1)} | ${told.p95Ms.toFixed(1)} |`)
  return told
}
