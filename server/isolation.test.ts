import type { Express } from 'express'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuid } from 'uuid'
import { ROUTES, type Endpoint, type OpenSession, type RouteName } from '#contracts'
import { ENDPOINTS } from '#contracts/endpoints'
import { oneOfEverything } from './testing/one-of-everything'
import { checkDraft, silence, startHarness, type Client, type Harness } from './testing/harness'

/** They need the password of this moment, a code of somebody's phone, or the server itself: other tests go through them. */
const OF_ONE_PERSON: readonly RouteName[] = [
  'secondFactor.begin',
  'secondFactor.confirm',
  'secondFactor.end',
  'server.read',
]

interface Layer {
  readonly route?: { readonly path: string; readonly methods: Record<string, boolean> }
  readonly handle: { readonly stack?: readonly Layer[] }
}

/** Every route that Express itself knows, whoever registered it. */
function routesOf(app: Express): string[] {
  const walk = (layers: readonly Layer[]): string[] =>
    layers.flatMap(({ route, handle }) =>
      route
        ? Object.keys(route.methods).map((method) => `${method.toUpperCase()} ${route.path}`)
        : walk(handle.stack ?? []),
    )
  return [...new Set(walk((app.router as unknown as { stack: Layer[] }).stack))]
}

function nameOf(route: string): RouteName | undefined {
  return (Object.keys(ROUTES) as RouteName[]).find((name) => ROUTES[name].join(' ') === route)
}

let harness: Harness
let mine: Client
let theirs: Client
/** What belongs to the other studio, by the name a path or a body gives it. */
let ids: Record<string, string>

beforeAll(async () => {
  harness = await startHarness()
  theirs = await harness.studio('Lantern Studio')
  mine = await harness.studio('Ferry Studio')
  ids = await oneOfEverything(theirs, 'Zephyrine Quay')
})
afterAll(() => harness.close())

/** The contract's own example, pointing at what is theirs. */
function bodyFor(name: RouteName): unknown {
  const { body, upload }: Endpoint = ENDPOINTS[name]
  if (upload) return silence()
  const [example] = (body?.meta()?.examples ?? []) as Record<string, unknown>[]
  if (!body) return undefined
  if (!example) throw new Error(`${name} takes a body and its contract gives no example`)
  return Object.fromEntries(
    Object.entries(example).map(([key, value]) => [
      key,
      key === 'ids' ? [ids['spareId']] : (ids[key] ?? value),
    ]),
  )
}

function pathFor(route: string): string {
  const path = route.replace(/^\w+ /, '').replace(/:(\w+)/g, (_, key: string) => ids[key] ?? '')
  const { query }: Partial<Endpoint> = ENDPOINTS[nameOf(route)!]
  const [example] = (query?.meta()?.examples ?? []) as Record<string, string>[]
  return example ? `${path}?${new URLSearchParams(example).toString()}` : path
}

/** Everything of their studio in every table that has studios, as text. */
async function theirRows(): Promise<string> {
  const { sequelize } = harness.database
  const tables = await sequelize.query<{ name: string }>(
    `SELECT table_name AS name FROM information_schema.columns
     WHERE table_schema = DATABASE() AND column_name = 'studio_id' ORDER BY table_name`,
    { type: QueryTypes.SELECT },
  )
  expect(tables.length).toBeGreaterThan(8)
  const rows = await Promise.all(
    tables.map(({ name }) =>
      sequelize.query(`SELECT * FROM \`${name}\` WHERE studio_id = :studioId ORDER BY 1, 2`, {
        type: QueryTypes.SELECT,
        replacements: { studioId: theirs.studioId },
      }),
    ),
  )
  return JSON.stringify(rows)
}

describe('two studios', () => {
  it('has every route of the contracts in Express, and no route that no contract describes', () => {
    const found = routesOf(harness.app).filter((route) => !route.includes('{*room}'))
    expect(found.sort()).toEqual(
      Object.values(ROUTES)
        .map((route) => route.join(' '))
        .sort(),
    )
  })

  it('shows and changes nothing of another studio on any route', async () => {
    const before = await theirRows()
    const { record: _, current: __, ...secretIds } = ids
    const secrets = [...Object.values(secretIds), 'Zephyrine', 'Lantern Studio', theirs.email]
    const tried: string[] = []
    for (const route of routesOf(harness.app)) {
      const name = nameOf(route)
      if (!name || (ENDPOINTS[name] as Endpoint).isPublic || name === 'session.close') continue
      const [method = ''] = route.split(' ')
      const reply = await mine.send(method, pathFor(route), bodyFor(name))
      for (const secret of secrets) expect(reply.text, `${route} lets out ${secret}`).not.toContain(secret)
      if (route.includes(':')) expect(reply.status, route).toBe(404)
      expect(reply.status, `${route}: ${reply.text}`).toBeLessThan(500)
      tried.push(route)
    }
    expect(tried.length).toBeGreaterThan(15)
    expect(await theirRows()).toBe(before)
  })

  it('refuses to tie one’s own student to another studio’s instrument', async () => {
    const { student } = await mine.player('Own Student')
    for (const [path, body] of [
      ['loans', { instrumentId: ids['instrumentId'], on: '2026-11-28' }],
      ['checks', checkDraft(ids['instrumentId'] ?? '')],
    ] as const) {
      const reply = await mine.send('POST', `/students/${student.id}/${path}`, body)
      expect(reply.status).toBe(422)
      expect(reply.problem.fields?.[0]?.path).toBe('instrumentId')
    }
  })

  it('would have succeeded with the same requests in the studio they belong to', async () => {
    // Another session of theirs is ended, not the one that asks.
    const [newest] = await theirs.make<OpenSession[]>('GET', '/sessions')
    await theirs.signIn()
    ids['sessionId'] = newest!.id
    for (const route of routesOf(harness.app)) {
      const name = nameOf(route)
      if (
        !name ||
        (ENDPOINTS[name] as Endpoint).isPublic ||
        name === 'session.close' ||
        OF_ONE_PERSON.includes(name)
      )
        continue
      const [method = ''] = route.split(' ')
      const reply = await theirs.send(method, pathFor(route), bodyFor(name))
      // Versions move on as the rows are changed; everything else goes through.
      if (reply.status !== 409) expect(reply.status, `${route}: ${reply.text}`).toBeLessThan(300)
    }
  })

  it('is held apart by the database itself, below all code', async () => {
    const { loan } = harness.database.models
    const { student } = await mine.player('Held Apart')
    const row = {
      id: uuid(),
      studioId: mine.studioId,
      studentId: student.id,
      instrumentId: ids['instrumentId'] ?? '',
      fromDate: '2026-11-28',
      toDate: '2026-11-29',
    }
    await expect(loan.create(row)).rejects.toThrow(/foreign key/i)
  })

  it('throws on a query that names no studio', async () => {
    await expect(harness.database.models.student.findAll()).rejects.toThrow('names no studio')
    await expect(harness.database.models.check.update({ note: '' }, { where: {} })).rejects.toThrow(
      'names no studio',
    )
    await expect(harness.database.models.attachment.destroy({ where: {} })).rejects.toThrow('names no studio')
  })
})
