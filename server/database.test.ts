import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { QueryTypes } from 'sequelize'
import { v7 as uuid } from 'uuid'
import { errorCodeOf, isConflict, isUnavailable } from './db/errors'
import { withLease } from './db/lease'
import { migrate } from './db/migrate'
import { StudioStore } from './db/studio-store'
import { clearExpired } from './housekeeping'
import { startHarness, type Client, type Harness } from './testing/harness'

let harness: Harness
let client: Client
let store: StudioStore
beforeAll(async () => (harness = await startHarness()))
afterAll(() => harness.close())
beforeEach(async () => {
  client = await harness.studio('Stored Studio')
  store = new StudioStore(harness.database, client.studioId)
})

const row = (label: string) => ({
  id: uuid(),
  version: 1,
  label,
  family: 'violin',
  sizeId: '4/4',
  tuning: ['G3', 'D4', 'A4', 'E5'],
  pressing: { mode: 'off' },
  warmHands: true,
  removedAt: null,
  createdAt: new Date('2026-11-28T09:00:00.123Z'),
})

describe('the tables', () => {
  it('have the columns that the models name, and no others: a column comes with its migration', async () => {
    const { models, sequelize } = harness.database
    // What the database works out itself is nobody's to write.
    const columns = await sequelize.query<{ of: string; is: string }>(
      `SELECT table_name AS \`of\`, column_name AS \`is\` FROM information_schema.columns
       WHERE table_schema = DATABASE() AND extra NOT LIKE '%GENERATED%'`,
      { type: QueryTypes.SELECT },
    )
    const tables: readonly Pick<typeof models.student, 'tableName' | 'rawAttributes'>[] =
      Object.values(models)
    for (const { tableName, rawAttributes } of tables) {
      const made = columns.filter((column) => column.of === tableName).map((column) => column.is)
      const named = Object.values(rawAttributes).map(({ field }) => field ?? '')
      expect(named.sort(), tableName).toEqual(made.sort())
    }
    expect(tables.length).toBeGreaterThan(15)
  })
})

describe('the store of a studio', () => {
  it('gives back what was put in, to the millisecond, as plain values', async () => {
    const instrument = row('no. 1')
    await store.insert(store.models.instrument, [instrument])
    expect(await store.one(store.models.instrument, { id: instrument.id })).toEqual({
      ...instrument,
      warmHands: 1,
      studioId: client.studioId,
    })
  })

  it('sees and changes nothing of another studio, also by id', async () => {
    const other = new StudioStore(harness.database, (await harness.studio('Other Studio')).studioId)
    const instrument = row('theirs')
    await other.insert(other.models.instrument, [instrument])
    expect(await store.one(store.models.instrument, { id: instrument.id })).toBeUndefined()
    expect(await store.update(store.models.instrument, { id: instrument.id }, { label: 'mine' })).toBe(0)
    expect((await other.one(other.models.instrument, { id: instrument.id }))?.label).toBe('theirs')
  })

  it('refuses a query of its own hand that names no studio', () => {
    expect(() => store.select('SELECT id FROM student')).toThrow('names no studio')
  })

  it('reports a change that changed nothing as done: the row is there', async () => {
    const instrument = row('same')
    await store.insert(store.models.instrument, [instrument])
    expect(await store.update(store.models.instrument, { id: instrument.id }, { label: 'same' })).toBe(1)
  })
})

describe('a transaction', () => {
  it('leaves nothing behind when its work fails', async () => {
    const { database } = harness
    const work = database.inTransaction(async (transaction) => {
      const within = new StudioStore(database, client.studioId, transaction)
      await within.insert(within.models.instrument, [row('never')])
      throw new Error('changed my mind')
    })
    await expect(work).rejects.toThrow('changed my mind')
    expect(await store.all(store.models.instrument)).toEqual([])
  })

  it('that loses a deadlock is done again from its start, and both are kept', async () => {
    const { database } = harness
    const [one, two] = [row('one'), row('two')]
    await store.insert(store.models.instrument, [one, two])
    let attempts = 0
    let arrived = 0
    let open = () => {}
    const bothHoldOne = new Promise<void>((resolve) => (open = resolve))
    const cross = (first: string, second: string, label: string) =>
      database.inTransaction(async (transaction) => {
        attempts++
        const within = new StudioStore(database, client.studioId, transaction)
        await within.update(within.models.instrument, { id: first }, { label })
        if (++arrived === 2) open()
        await bothHoldOne
        await within.update(within.models.instrument, { id: second }, { label })
      })
    await Promise.all([cross(one.id, two.id, 'left'), cross(two.id, one.id, 'right')])
    expect(attempts).toBeGreaterThan(2)
    const labels = (await store.all(store.models.instrument)).map((r) => r.label)
    expect(new Set(labels).size).toBe(1)
  })
})

describe('the schema', () => {
  it('is migrated once, also when several servers start together', async () => {
    const { sequelize } = harness.database
    expect(await Promise.all([migrate(sequelize), migrate(sequelize)])).toEqual([[], []])
  })

  it('lets no instrument be with two students at once', async () => {
    const { student, instrument } = await client.player('Holder')
    const second = await client.make<{ id: string }>('POST', '/students', {
      name: 'Second',
      family: 'violin',
    })
    const loan = {
      id: uuid(),
      studentId: second.id,
      instrumentId: instrument.id,
      fromDate: '2026-11-28',
      toDate: null,
    }
    const error = await store.insert(store.models.loan, [loan]).catch((e: unknown) => e)
    expect(errorCodeOf(error)).toBe('ER_DUP_ENTRY')
    await store.insert(store.models.loan, [{ ...loan, toDate: '2026-11-28' }])
    expect(student.id).not.toBe(second.id)
  })
})

describe('housekeeping', () => {
  it('clears sessions and keys that have run out, and only those', async () => {
    await client.player('Lately')
    const keys = async () => (await store.all(store.models.idempotencyKey)).length
    const before = await keys()
    expect(before).toBeGreaterThan(0)
    await clearExpired(harness.database, harness.clock)
    expect(await keys()).toBe(before)
    expect((await client.send('GET', '/session')).status).toBe(200)
    await clearExpired(harness.database, new Date(harness.clock.getTime() + 30 * 24 * 3600_000))
    expect(await keys()).toBe(0)
    expect((await client.send('GET', '/session')).status).toBe(401)
  })
})

describe('an error', () => {
  const sql = (code: string) =>
    Object.assign(new Error('x'), {
      name: 'SequelizeDatabaseError',
      parent: Object.assign(new Error('y'), { name: 'SqlError', code }),
    })
  const named = (code: string) => Object.assign(new Error('no such file, or nobody on the line'), { code })

  it('is one of a database that is away only when it is', () => {
    const refused = Object.assign(new Error('x'), { name: 'SequelizeConnectionRefusedError' })
    expect([refused, sql('ER_SOCKET_UNEXPECTED_CLOSE'), sql('ECONNRESET')].map(isUnavailable)).toEqual([
      true,
      true,
      true,
    ])
    // Of a cluster: a node alone, and one that was cut off while it kept something.
    expect([sql('ER_UNKNOWN_COM_ERROR'), sql('ER_ERROR_DURING_COMMIT')].map(isUnavailable)).toEqual([
      true,
      true,
    ])
    const others = [
      sql('ER_DUP_ENTRY'),
      named('ENOENT'),
      named('ECONNRESET'),
      new Error('x'),
      'text',
      undefined,
    ]
    expect(others.map(isUnavailable)).toEqual(others.map(() => false))
  })

  it('is one of two saves that met only when they did', () => {
    expect([sql('ER_DUP_ENTRY'), sql('ER_NO_REFERENCED_ROW_2')].map(isConflict)).toEqual([true, true])
    expect([sql('ER_PARSE_ERROR'), named('ER_DUP_ENTRY'), undefined].map(isConflict)).toEqual([
      false,
      false,
      false,
    ])
  })
})

describe('a lease over the nodes of a cluster', () => {
  const waiting = { lockWaitS: 1, tellEveryS: 1, report: () => {} }
  const run = (sql: string) => harness.database.sequelize.query(sql, { type: QueryTypes.RAW })
  const held = (work: () => Promise<unknown>) =>
    withLease(harness.database.sequelize, 'migrate', waiting, work)
  const since = async () => {
    const [row] = await harness.database.sequelize.query<{ left: number }>(
      'SELECT TIMESTAMPDIFF(SECOND, UTC_TIMESTAMP(3), until_at) AS `left` FROM lease',
      { type: QueryTypes.SELECT },
    )
    return row?.left
  }
  beforeEach(() => held(async () => {}))
  // Where there is no cluster there is no such table.
  afterAll(() => run('DROP TABLE lease'))

  it('is one server’s at a time, for half a minute from its last word, and nobody’s afterwards', async () => {
    let isAtWork = false
    const work = async () => {
      expect(isAtWork).toBe(false)
      isAtWork = true
      const left = await since()
      expect([left! > 25, left! <= 30]).toEqual([true, true])
      isAtWork = false
    }
    await Promise.all([held(work), held(work), held(work)])
    expect(await since()).toBeUndefined()
  })

  it('of one that died is taken when it has run out, and waited for before', async () => {
    await run("INSERT INTO lease VALUES (1, 'one that died', UTC_TIMESTAMP(3) + INTERVAL 20 SECOND)")
    await expect(held(() => Promise.resolve())).rejects.toThrow('Another server')
    await run('UPDATE lease SET until_at = UTC_TIMESTAMP(3) - INTERVAL 1 SECOND')
    expect(await held(() => Promise.resolve('done'))).toBe('done')
  })
})
