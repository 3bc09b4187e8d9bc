// `npm run bench:scale`: each route that reads, on a district of 200 studios whose largest has 2,000 students, 2,000 instruments, 120,000
// checks and a million readings: the 95th percentile of a call against that of its own statements sent straight to the database. And what the
// database says it would look through: a whole table is told.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { ENDPOINTS } from '#contracts/endpoints'
import {
  ROUTES,
  type Endpoint,
  type Check,
  type HandMeasurement,
  type Instrument,
  type Page,
  type RouteName,
} from '#contracts'
import { openDataDirectory } from '../scripts/database/data-directory'
import { startPrivateServer } from '../scripts/database/private-server'
import { databasePrograms } from '../scripts/database/programs'
import { addDistrict, LARGE_EMAIL } from '../server/demo/large'
import { DEMO_PASSWORD } from '../server/demo/seed'
import { play, signIn, startBenchServer, type Statement } from './server'

const CALLS = 60
const WARM_UP = 10
const AIM = 2
/** Below so many ms a call is its own costs, not the database's: the ratio is told and decides nothing. */
const UNFELT_MS = 8
/** A table of fewer rows is read whole sooner than by a key. */
const LARGE_ROWS = 1000
/** Sound and pictures by their bytes, descriptions of the program itself, what belongs to no studio. */
const APART: readonly RouteName[] = [
  'attachments.read',
  // Of the demo's takes no pitch is copied.
  'checks.track',
  'openapi.read',
  'health.read',
  'live.read',
  'door.read',
  'server.read',
  'room.read',
]

/** Asked as the example of its contract has it: some reads are of a day, a line or a family. */
function queryOf(name: RouteName): string {
  const { query }: Endpoint = ENDPOINTS[name]
  const [example] = (query?.meta()?.examples ?? []) as Record<string, string>[]
  return example ? `?${new URLSearchParams(example).toString()}` : ''
}

const path = mkdtempSync(join(tmpdir(), 'jadefell-scale-'))
const server = await startPrivateServer(openDataDirectory(path), databasePrograms, () => {})
const app = await startBenchServer(server.url)
try {
  await addDistrict(
    app.database,
    { studios: 200, students: 100, large: { students: 2000, checks: 120_000 } },
    DEMO_PASSWORD,
    (line) => console.log(`  ${line}`),
  )
  const client = await signIn(app.base, LARGE_EMAIL)
  const ids = await idsOf(client)
  const above: string[] = []
  console.log('| route | p95, ms | its SQL, ms | ratio | statements | looked through |')
  console.log('|---|---:|---:|---:|---:|---|')
  for (const [name, [method, template]] of Object.entries(ROUTES) as [
    RouteName,
    readonly [string, string],
  ][]) {
    if (method !== 'GET' || APART.includes(name)) continue
    const address = template.replace(/:(\w+)/g, (_, key: string) => ids[key] ?? '') + queryOf(name)
    const call = () => client.get(address)
    const sql = await app.written(call)
    const [ours, theirs] = [await p95(call), await p95(() => play(app.bare, sql))]
    const whole = await lookedThrough(sql)
    const ratio = ours / theirs
    console.log(
      `| ${name} | ${ours.toFixed(1)} | ${theirs.toFixed(1)} | ${ratio.toFixed(2)} | ${sql.length} | ${whole.join(', ')} |`,
    )
    if (ratio > AIM && ours > UNFELT_MS) above.push(`${name}: ${ratio.toFixed(2)} × its SQL`)
    if (whole.length > 0) above.push(`${name} looks through ${whole.join(', ')}`)
  }
  client.close()
  for (const one of above) console.error(one)
  if (above.length > 0) process.exitCode = 1
} finally {
  await app.close()
  await server.stop()
  rmSync(path, { recursive: true })
}

async function idsOf(client: Awaited<ReturnType<typeof signIn>>): Promise<Record<string, string>> {
  const student = await client.student('Orla Venn 1')
  const [check] = (await client.get<Check[]>(`/students/${student.id}/checks`)) ?? []
  const [hand] = await client.get<HandMeasurement[]>(`/students/${student.id}/hands`)
  const { rows } = await client.get<Page<Instrument>>('/instruments')
  return {
    studentId: student.id,
    checkId: check?.id ?? '',
    handId: hand?.id ?? '',
    instrumentId: student.instrument?.id ?? rows[0]!.id,
    record: 'student',
    recordId: student.id,
  }
}

async function p95(work: () => Promise<unknown>): Promise<number> {
  const took: number[] = []
  for (let nth = 0; nth < WARM_UP + CALLS; nth++) {
    const from = performance.now()
    await work()
    if (nth >= WARM_UP) took.push(performance.now() - from)
  }
  return took.sort((a, b) => a - b)[Math.ceil(0.95 * took.length) - 1]!
}

/** Tables that a statement would read whole, with how many rows. */
async function lookedThrough(statements: readonly Statement[]): Promise<string[]> {
  const found = new Set<string>()
  for (const { sql, bound } of statements) {
    if (!/^\s*SELECT/i.test(sql)) continue
    const plan = await app.bare.query<
      { table: string | null; type: string | null; rows: number | bigint | null }[]
    >(`EXPLAIN ${sql}`, [...bound])
    for (const { table, type, rows } of plan)
      if (type === 'ALL' && Number(rows) > LARGE_ROWS && table && !table.startsWith('<'))
        found.add(`${table} (${rows})`)
  }
  return [...found]
}
