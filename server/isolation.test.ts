import type { Express } from 'express'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { v7 as uuid } from 'uuid'
import {
  ROUTES,
  type Attachment,
  type BodyFit,
  type Check,
  type Endpoint,
  type HandMeasurement,
  type Instrument,
  type OpenSession,
  type Pain,
  type Person,
  type Plan,
  type RingFind,
  type RouteName,
  type SetupRound,
  type TapeEvent,
} from '#contracts'
import { ENDPOINTS } from '#contracts/endpoints'
import {
  checkDraft,
  heardDraft,
  setupRound,
  silence,
  startHarness,
  weekPlan,
  type Client,
  type Harness,
} from './testing/harness'

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
  const { student, instrument } = await theirs.player('Zephyrine Quay')
  const check = await theirs.make<Check>('POST', `/students/${student.id}/checks`, heardDraft(instrument.id))
  await theirs.make('POST', `/instruments/${instrument.id}/tape-sets`, {
    schoolId: 'first',
    system: 'fifths',
    tapeWidthMm: 3,
    laidOn: '2026-11-28',
  })
  const [event] = await theirs.make<TapeEvent[]>('GET', `/instruments/${instrument.id}/tape-events`)
  const find = await theirs.make<RingFind>('POST', `/instruments/${instrument.id}/ring-finds`, {
    string: 'D4',
    note: 'E4',
    system: 'fifths',
    placeMm: 32.1,
    foundOn: '2026-11-28',
  })
  const hand = await theirs.make<HandMeasurement>('POST', `/students/${student.id}/hands`, {
    measuredOn: '2026-11-28',
    comfortableSpanMm: 63.25,
  })
  await theirs.make('POST', `/students/${student.id}/mastery`, {
    marks: [{ kind: 'pattern', item: 'fourth/1234/212', state: 'secure' }],
  })
  await theirs.make('POST', '/fingerings', {
    line: {
      family: 'violin',
      tuning: ['G3', 'D4', 'A4', 'E5'],
      frameId: 'fourth',
      keyId: 'G:major',
      figure: 'arpeggio',
      octaves: 1,
    },
    notes: [0, 2, 0, 3, 0, 2, 0].map((finger, i) => ({ stringIndex: [0, 0, 1, 1, 1, 0, 0][i], finger })),
    settled: [3],
  })
  const round = await theirs.make<SetupRound>('POST', `/students/${student.id}/setup-rounds`, setupRound())
  const pain = await theirs.make<Pain>('POST', `/students/${student.id}/pains`, {
    toldOn: '2026-11-28',
    place: 'left wrist',
  })
  const fit = await theirs.make<BodyFit>('POST', `/students/${student.id}/body-fits`, {
    family: 'violin',
    fittedOn: '2026-11-28',
    handsOff: 5,
  })
  await theirs.make('POST', `/students/${student.id}/gate-marks`, {
    gate: 'vibrato',
    item: 'steady_bow',
    state: 'yes',
  })
  const plan = await theirs.make<Plan>('POST', `/students/${student.id}/plans`, weekPlan())
  await theirs.make('POST', `/students/${student.id}/practice`, {
    entries: [{ exerciseId: 'shake_out', on: '2026-11-28', isDone: true, minutes: 5 }],
  })
  const [session] = await theirs.make<OpenSession[]>('GET', '/sessions')
  await theirs.allowSound(student)
  const file = await theirs.make<Attachment>('POST', `/attachments/check/${check.id}`, silence())
  const spare = await theirs.make<Instrument>('POST', '/instruments', {
    label: 'with nobody',
    family: 'violin',
    sizeId: '1/2',
  })
  const { person } = await theirs.make<{ person: Person }>('POST', '/people', {
    name: 'Zephyrine’s other teacher',
    email: `${uuid()}@lantern.example`,
  })
  ids = {
    userId: person.id,
    spareId: spare.id,
    record: 'check',
    recordId: check.id,
    attachmentId: file.id,
    studentId: student.id,
    instrumentId: instrument.id,
    checkId: check.id,
    eventId: event?.id ?? '',
    findId: find.id,
    handId: hand.id,
    roundId: round.id,
    painId: pain.id,
    fitId: fit.id,
    planId: plan.id,
    sessionId: session?.id ?? '',
    current: theirs.password,
  }
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
