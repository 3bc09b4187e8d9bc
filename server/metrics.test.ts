import parse from 'parse-prometheus-text-format'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { ServerState, Student } from '#contracts'
import { openDatabase } from './db/database'
import { quantileOf } from './http/metrics'
import { Client, startHarness, type Harness } from './testing/harness'

const TOKEN = 'a token of the tests, long enough'
const read = (url: string, token = TOKEN) =>
  fetch(`${url}/api/metrics`, { headers: { authorization: `Bearer ${token}` } })

let harness: Harness
let client: Client
beforeAll(async () => {
  harness = await startHarness({ metricsToken: TOKEN })
  client = await harness.studio('Counted Studio')
})
afterAll(() => harness.close())

it('counts and times requests by their route’s name, as another reader of the format understands it', async () => {
  const { id } = await client.make<Student>('POST', '/students', { name: 'Orla Venn', family: 'violin' })
  await client.send('GET', `/students/${id}`)
  await client.send('GET', `/students/${id}`)
  await client.send('GET', '/students/no-such-id')
  const text = await (await read(harness.url)).text()
  const families = parse(text)
  const of = (name: string) => families.find((family) => family.name === name)?.metrics
  expect(of('jadefell_requests_total')).toEqual(
    expect.arrayContaining([
      { labels: { route: 'students.read', status: '200' }, value: '2' },
      { labels: { route: 'students.read', status: '404' }, value: '1' },
      { labels: { route: 'students.create', status: '200' }, value: '1' },
    ]),
  )
  expect(families.find(({ name }) => name === 'jadefell_request_duration_seconds')?.type).toBe('HISTOGRAM')
  expect(text).toMatch(/^jadefell_request_duration_seconds_count\{route="students\.read"\} 3$/m)
  expect(of('jadefell_database_up')).toMatchObject([{ value: '1' }])
  expect(of('jadefell_cluster_nodes')).toMatchObject([{ value: '0' }])
  // Nothing of who was asked for, or by whom.
  for (const secret of [id, 'Orla', client.email, client.studioId, 'no-such-id'])
    expect(text).not.toContain(secret)
})

it('tells whoever runs the server, and nobody else, how it is', async () => {
  const own = await startHarness({ database: harness.database, operators: [client.email] })
  const [operator, teacher] = [new Client(own.url, client.email), await own.studio('No Operator')]
  await operator.signIn()
  for (let i = 0; i < 20; i++) await operator.send('GET', '/students')
  expect((await teacher.send('GET', '/server')).problem.code).toBe('not_allowed')
  await harness.database.models.operation.bulkCreate(
    [2, 1].map((day) => ({
      id: crypto.randomUUID(),
      kind: 'backup' as const,
      at: new Date(`2026-11-0${day}T03:00:00.000Z`),
      isSound: true,
      report: { rows: day * 100, isLocked: true },
    })),
  )
  const state = await operator.make<ServerState>('GET', '/server')
  expect(state).toMatchObject({
    database: {
      isUp: true,
      nodes: 0,
      isReady: true,
      lastMigration: expect.stringMatching(/^00\d\d-/) as string,
    },
    backup: { at: '2026-11-02T03:00:00.000Z', rows: 200, isLocked: true },
    drill: null,
  })
  expect(state.routes.find(({ route }) => route === 'students.list')).toMatchObject({ count: 20, failed: 0 })
  expect(JSON.stringify(state)).not.toMatch(/No Operator|harbour/)
  await own.end()
})

it('estimates a percentile within its bucket, as histogram_quantile does', () => {
  // The worked example of Prometheus' documentation has no numbers: these are by its rule, done by hand.
  const buckets = [
    { upTo: 0.1, count: 50 },
    { upTo: 0.2, count: 90 },
    { upTo: 0.5, count: 100 },
    { upTo: Infinity, count: 100 },
  ]
  expect(quantileOf(buckets, 0.95)).toBeCloseTo(0.35, 12)
  expect(quantileOf(buckets, 0.5)).toBeCloseTo(0.1, 12)
  expect(quantileOf([...buckets.slice(0, 3), { upTo: Infinity, count: 200 }], 0.95)).toBe(0.5)
  expect(quantileOf([{ upTo: Infinity, count: 0 }], 0.95)).toBe(0)
})

it('shows them to nobody else', async () => {
  expect((await read(harness.url, 'another token of the tests')).status).toBe(404)
  expect((await fetch(`${harness.url}/api/metrics`)).status).toBe(404)
  const without = await startHarness({ database: harness.database })
  expect((await read(without.url)).status).toBe(404)
  await without.end()
})

it('tells that the database is away, and lives on', async () => {
  const lame = await startHarness({
    metricsToken: TOKEN,
    database: openDatabase('mariadb://u:p@127.0.0.1:1/none'),
  })
  expect(await (await read(lame.url)).text()).toMatch(/^jadefell_database_up 0$/m)
  const health = await fetch(`${lame.url}/api/health`)
  const live = await fetch(`${lame.url}/api/live`)
  expect([health.status, live.status, await live.json()]).toEqual([503, 200, { status: 'ok' }])
  await lame.close()
})
