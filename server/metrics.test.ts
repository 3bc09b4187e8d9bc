import parse from 'parse-prometheus-text-format'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Student } from '#contracts'
import { openDatabase } from './db/database'
import { startHarness, type Client, type Harness } from './testing/harness'

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
