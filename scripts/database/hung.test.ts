import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mariadb from 'mariadb'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDatabase } from '../../server/db/database'
import { prepareDatabase } from '../../server/demo/prepare'
import { startHarness } from '../../server/testing/harness'
import { openDataDirectory } from './data-directory'
import { startPrivateServer, type PrivateServer } from './private-server'
import { databasePrograms } from './programs'

let path: string
let server: PrivateServer
beforeAll(async () => {
  path = mkdtempSync(join(tmpdir(), 'jadefell-hung-'))
  server = await startPrivateServer(openDataDirectory(path), databasePrograms, () => {})
})
afterAll(async () => {
  await server.stop()
  rmSync(path, { recursive: true })
})

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
    await database.close()
    await bare.end()
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
