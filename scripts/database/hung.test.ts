import { closeSync, cpSync, mkdtempSync, openSync, rmSync, writeSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mariadb from 'mariadb'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDatabase } from '../../server/db/database'
import { prepareDatabase } from '../../server/demo/prepare'
import { removeDemo } from '../../server/demo/remove'
import { DEMO_EMAIL, DEMO_PASSWORD } from '../../server/demo/seed'
import { Client, startHarness } from '../../server/testing/harness'
import { openDataDirectory } from './data-directory'
import { startPrivateServer, type PrivateServer } from './private-server'
import { databasePrograms } from './programs'
import { tornTables } from './torn-tables'

let path: string
let server: PrivateServer
beforeAll(async () => {
  // Any legal path will do, as a folder of one's own is called: with spaces, and signs that mean something elsewhere.
  path = mkdtempSync(join(tmpdir(), 'jadefell hung: the cello’s #1 '))
  server = await startPrivateServer(openDataDirectory(path), databasePrograms, () => {})
})
afterAll(async () => {
  await server.stop()
  rmSync(path, { recursive: true })
})

// One server’s life from its empty beginning: each part goes on from the one before.
describe('a studio’s database', { shuffle: false }, () => {
  describe('servers that start together on one empty database', () => {
    it('both come up, on one demo studio', async () => {
      const said: string[] = []
      await Promise.all(
        [1, 2, 3].map(async () => {
          const database = openDatabase(server.url)
          await prepareDatabase(database, true, (line) => said.push(line))
          await database.close()
        }),
      )
      expect(said.filter((line) => line === 'made the demo studio')).toHaveLength(1)
      expect(said.filter((line) => line.startsWith('migrated'))).toHaveLength(1)
      const database = openDatabase(server.url)
      expect(await database.models.studio.count()).toBe(1)
      await database.close()
    })

    it('do not go on where another never comes to an end', async () => {
      const { hostname, port, username, password, pathname } = new URL(server.url)
      const bare = await mariadb.createConnection({
        host: hostname,
        port: Number(port),
        user: username,
        password: decodeURIComponent(password),
        database: pathname.slice(1),
      })
      await bare.query("SELECT GET_LOCK(CONCAT('jadefell ', DATABASE()), 1)")
      const database = openDatabase(server.url)
      await expect(prepareDatabase(database, true, () => {}, { lockWaitS: 1 })).rejects.toThrow(
        'Another server',
      )
      // Where it does, they go on, and say meanwhile what they wait for.
      const said: string[] = []
      const prepared = prepareDatabase(
        database,
        true,
        (line) => {
          said.push(line)
          void bare.query("SELECT RELEASE_LOCK(CONCAT('jadefell ', DATABASE()))")
        },
        { tellEveryS: 1 },
      )
      await prepared
      expect(said).toEqual(['another server is preparing the database: waiting for it'])
      await database.close()
      await bare.end()
    })
  })

  describe('the door of a demo that was made', () => {
    const bodyOf = { email: DEMO_EMAIL, password: DEMO_PASSWORD }

    it('is shut at once, for its printed password and for whoever came in by it; others come and go', async () => {
      const open = await startHarness({ database: openDatabase(server.url) })
      const inside = await open.studio('Harbour Strings')
      const guest = new Client(open.url, DEMO_EMAIL, DEMO_PASSWORD)
      expect((await guest.signIn()).status).toBe(200)
      expect((await guest.send('GET', '/studio')).status).toBe(200)
      const shut = await startHarness({ database: openDatabase(server.url), shutFor: DEMO_EMAIL })
      const late = new Client(shut.url, DEMO_EMAIL, DEMO_PASSWORD)
      const refused = await late.send('POST', '/session', bodyOf)
      expect(refused.problem).toMatchObject({ status: 401, code: 'wrong_credentials' })
      guest.url = shut.url
      expect((await guest.send('GET', '/studio')).status).toBe(401)
      inside.url = shut.url
      expect((await inside.send('GET', '/studio')).status).toBe(200)
      await open.close()
      await shut.close()
    })

    it('goes with everything behind it, and nothing else', async () => {
      const database = openDatabase(server.url)
      const count = async (table: string) => {
        const [row] = await database.sequelize.query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`, {
          type: QueryTypes.SELECT,
        })
        return Number(row?.n)
      }
      expect([await count('studio'), (await count('student')) > 10]).toEqual([2, true])
      expect(await removeDemo(database)).toBeGreaterThan(500)
      expect(await removeDemo(database)).toBeUndefined()
      for (const [table, left] of [
        ['studio', 1],
        ['user', 1],
        ['student', 0],
        ['hand_check', 0],
        ['landing', 0],
        ['tape_event', 0],
      ] as const)
        expect(await count(table), table).toBe(left)
      await database.close()
    })
  })

  describe('a database that hangs', () => {
    it('is told to whoever asks, soon, and works again when it wakes', async () => {
      const harness = await startHarness({ database: openDatabase(server.url), answerWithinMs: 700 })
      const client = await harness.studio('Hung Studio')
      process.kill(server.pid, 'SIGSTOP')
      try {
        const from = performance.now()
        const health = await fetch(`${harness.url}/api/health`)
        expect([health.status, performance.now() - from < 2000]).toEqual([503, true])
        const key = 'the-same-key-for-both'
        const save = await client.send('POST', '/students', { name: 'Waiting', family: 'violin' }, { key })
        expect(save.problem).toMatchObject({ status: 503, code: 'database_unavailable' })
        process.kill(server.pid, 'SIGCONT')
        const again = await client.send('POST', '/students', { name: 'Waiting', family: 'violin' }, { key })
        expect([200, 503]).toContain(again.status)
        const kept = await client.send('POST', '/students', { name: 'Waiting', family: 'violin' }, { key })
        expect(kept.status).toBe(200)
        expect((await client.roster('q=Waiting')).total).toBe(1)
      } finally {
        process.kill(server.pid, 'SIGCONT')
        await harness.close()
      }
    })
  })

  describe('a data directory that was copied while its server ran', () => {
    it('comes up by itself beside the first, and a table that did not come through whole is found', async () => {
      const database = openDatabase(server.url)
      await prepareDatabase(database, false, () => {})
      const first = openDataDirectory(path)
      const to = join(path, 'copy')
      cpSync(first.file('mariadb'), join(to, 'mariadb'), { recursive: true })
      for (const file of ['jadefell.json', 'mariadb.json', 'mariadb.cnf'])
        cpSync(first.file(file), join(to, file))
      const copy = openDataDirectory(to)
      const foundTorn = async () => {
        const own = await startPrivateServer(copy, databasePrograms, () => {})
        expect([own.adopted, own.url === server.url]).toEqual([false, false])
        const opened = openDatabase(own.url)
        const torn = await tornTables(opened)
        await opened.close()
        await own.stop()
        return torn
      }
      expect(await foundTorn()).toEqual([])
      // Pages of which a half is from before a write and a half from after it, and no log any more that tells.
      const file = openSync(copy.file('mariadb/jadefell/studio.ibd'), 'r+')
      for (let at = 3 * 16384 + 200; at < 6 * 16384; at += 16384)
        writeSync(file, Buffer.alloc(4096, 0xa5), 0, 4096, at)
      closeSync(file)
      expect(await foundTorn()).toEqual(['studio'])
      expect(await tornTables(database)).toEqual([])
      await database.close()
    })
  })
})
