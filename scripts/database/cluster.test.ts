import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mariadb, { type Connection } from 'mariadb'
import { QueryTypes } from 'sequelize'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Student } from '#contracts'
import { openDatabase, type Database } from '../../server/db/database'
import { isUnavailable } from '../../server/db/errors'
import { addressThatAnswers, withInFront } from '../../server/db/hosts'
import { prepareDatabase } from '../../server/demo/prepare'
import { checkDraft, startHarness, type Client, type Harness } from '../../server/testing/harness'
import { endWith } from '../testing/guard'
import { torture } from '../torture/torture'
import { backup } from './backup'
import { startCluster, type Cluster, type ClusterNode } from './cluster'
import { socketPath } from './private-server'
import { restore } from './restore'

let folder: string
let cluster: Cluster
/** Two servers that are run beside each other, each with a node of its own in front. */
let servers: readonly Harness[]
let [hester, elsewhere]: Client[] = []

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'jadefell-cluster-'))
  // Before they are started: who is killed meanwhile leaves nothing either.
  for (const name of ['node-1', 'node-2', 'node-3'])
    endWith(process.pid, join(folder, name, 'mariadb.pid'), join(folder, name))
  cluster = await startCluster(folder)
}, 240_000)
afterAll(async () => {
  await Promise.all(servers.map((server) => server.close()))
  await cluster.stop()
  rmSync(folder, { recursive: true })
}, 120_000)

async function rowsOf<Row extends object>(database: Database, sql: string): Promise<Row[]> {
  return database.sequelize.query<Row>(sql, { type: QueryTypes.SELECT })
}

function rootOf({ data }: ClusterNode): Promise<Connection> {
  const { rootPassword: password } = data.secrets
  return mariadb.createConnection({ socketPath: socketPath(data), user: 'root', password })
}

/** The same session at the other server. */
function at(server: Harness, client: Client): Client {
  return Object.assign(Object.create(client) as Client, { url: server.url })
}

// One cluster’s life from its empty beginning: each part goes on from the one before.
describe('three nodes of Galera', { shuffle: false, timeout: 180_000 }, () => {
  it('are brought up to date by one of three servers that start at once, each at its own node', async () => {
    const said: string[] = []
    await Promise.all(
      cluster.nodes.map(async ({ url }) => {
        const database = openDatabase(url)
        await prepareDatabase(database, false, (line) => said.push(line))
        await database.close()
      }),
    )
    expect(said.filter((line) => line.startsWith('migrated'))).toHaveLength(1)
    servers = await Promise.all(
      [0, 1].map((index) => startHarness({ database: openDatabase(withInFront(cluster.url, index)) })),
    )
    hester = await servers[0]!.studio('Port Ellery District')
    elsewhere = at(servers[1]!, hester)
  })

  it('find a primary key in every table, without which no row is told from another', async () => {
    const bare = await rowsOf(
      servers[0]!.database,
      `SELECT t.table_name AS name FROM information_schema.tables t
         LEFT JOIN information_schema.table_constraints k
           ON k.table_schema = t.table_schema AND k.table_name = t.table_name AND k.constraint_type = 'PRIMARY KEY'
       WHERE t.table_schema = DATABASE() AND k.constraint_name IS NULL`,
    )
    expect(bare).toEqual([])
  })

  it('show over one node at once what was kept over another', async () => {
    for (let lesson = 0; lesson < 12; lesson++) {
      const made = await hester!.make<Student>('POST', '/students', {
        name: `Pupil ${lesson}`,
        family: 'cello',
      })
      expect((await elsewhere!.send('GET', `/students/${made.id}`)).status).toBe(200)
    }
  })

  it('keep a save once that is sent over two of them at once, and give both the one answer', async () => {
    for (let round = 0; round < 8; round++) {
      const body = { name: `Twice ${round}`, family: 'viola' }
      const key = `sent-over-two-${round}`
      const [one, other] = await Promise.all([
        hester!.send('POST', '/students', body, { key }),
        elsewhere!.send('POST', '/students', body, { key }),
      ])
      expect([one.status, other.status]).toEqual([200, 200])
      expect(other.body).toEqual(one.body)
    }
    expect(await hester!.roster('q=Twice')).toMatchObject({ total: 8 })
  })

  it('let one of two changes of the same row pass and show the other what is there now', async () => {
    const { id, version } = await hester!.make<Student>('POST', '/students', {
      name: 'Wren Quill',
      family: 'violin',
    })
    const renamed = (client: Client, name: string) =>
      client.send('PATCH', `/students/${id}`, { version, name })
    const replies = await Promise.all([renamed(hester!, 'Wren Sand'), renamed(elsewhere!, 'Wren Salt')])
    expect(replies.map(({ status }) => status).sort()).toEqual([200, 409])
  })

  it('lose one in the middle of lessons, and no teacher a check: the server goes on at another', async () => {
    const { student, instrument } = await hester!.player('Denzil Crake')
    const path = `/students/${student.id}/checks`
    const kept: string[] = []
    const lesson = async (client: Client, teacher: string) => {
      for (let check = 0; check < 10; check++) {
        const key = `check-${check}-of-${teacher}`
        // As the page does: the same save until somebody has it.
        for (;;) {
          const reply = await client
            .send('POST', path, checkDraft(instrument.id), { key })
            .catch(() => undefined)
          if (reply?.status === 200) {
            kept.push((reply.body as { id: string }).id)
            break
          }
          expect([undefined, 503]).toContain(reply?.status)
        }
      }
    }
    const lessons = Promise.all([lesson(hester!, 'hester'), lesson(elsewhere!, 'another')])
    await cluster.nodes[0]!.kill()
    await lessons
    const there = await elsewhere!.make<{ id: string }[]>('GET', path)
    expect(there.map(({ id }) => id).sort()).toEqual([...new Set(kept)].sort())
    expect(kept).toHaveLength(20)
    expect((await hester!.send('GET', '/studio')).status).toBe(200)
  })

  it('give the one that comes back what it missed', async () => {
    await cluster.nodes[0]!.start()
    const counts = async ({ url }: { url: string }) => {
      const database = openDatabase(url)
      const rows = await rowsOf(
        database,
        'SELECT (SELECT COUNT(*) FROM hand_check) AS checks, (SELECT COUNT(*) FROM landing) AS landings, (SELECT COUNT(*) FROM student) AS students',
      )
      await database.close()
      return rows
    }
    const [back, ...others] = await Promise.all(cluster.nodes.map(counts))
    for (const other of others) expect(other).toEqual(back)
    expect(back).toMatchObject([{ checks: 20 }])
  })

  it('go on where one hangs without a word, as behind a cut cable; it comes back by itself', async () => {
    const [, second] = cluster.nodes
    process.kill(second!.pid!, 'SIGSTOP')
    try {
      let reply = await elsewhere!.send('GET', '/studio')
      for (let tries = 1; reply.status === 503 && tries < 5; tries++)
        reply = await elsewhere!.send('GET', '/studio')
      expect(reply.status).toBe(200)
      expect(await addressThatAnswers(withInFront(cluster.url, 1))).toContain(`:${cluster.nodes[2]!.port}/`)
    } finally {
      process.kill(second!.pid!, 'SIGCONT')
    }
    const database = openDatabase(second!.url)
    await expect
      .poll(() => rowsOf(database, 'SELECT COUNT(*) AS checks FROM hand_check').catch(() => []), {
        timeout: 60_000,
      })
      .toEqual([{ checks: 20 }])
    await database.close()
  })

  it('leave one that is cut off in the middle of a statement, and refuses whoever comes to end that', async () => {
    const [, , third] = cluster.nodes
    const root = await rootOf(third!)
    const isolate = (value: 0 | 1) =>
      root.query(`SET GLOBAL wsrep_provider_options = 'gmcast.isolate=${value}'`)
    const database = openDatabase(withInFront(cluster.url, 2))
    await rowsOf(database, 'SELECT 1')
    const status = async (name: string) =>
      (await root.query<{ Value: string }[]>(`SHOW GLOBAL STATUS LIKE '${name}'`))[0]?.Value
    const size = async () => {
      // One that hung may end once it finds that it was left out: its service starts it again.
      for (const node of cluster.nodes) if (node.pid === undefined) await node.start()
      return status('wsrep_cluster_size')
    }
    const untilWhole = () => expect.poll(size, { timeout: 60_000 }).toBe('3')
    // Of two that are left neither could go on without the third.
    await untilWhole()
    try {
      const asked = rowsOf(database, 'SELECT @@wsrep_node_name AS node, SLEEP(12)').catch((fault: unknown) =>
        isUnavailable(fault) ? 'to be asked again' : fault,
      )
      await isolate(1)
      // Another answers, or nobody yet; the line to the third is cut, and this process lives.
      expect([
        [{ node: expect.stringMatching(/node-[12]/) as string, 'SLEEP(12)': 0 }],
        'to be asked again',
      ]).toContainEqual(await asked)
    } finally {
      await isolate(0)
      await database.close()
    }
    await untilWhole()
    await expect.poll(() => status('wsrep_local_state_comment'), { timeout: 60_000 }).toBe('Synced')
    await root.end()
  })

  it('take a backup back over one of them: every node has it, nobody restores beside it over another', async () => {
    const [one, two, three] = cluster.nodes
    const file = join(folder, 'backup.sql')
    await backup(new URL(one!.url), file)
    // Right after a node was gone the first word may meet a line to it.
    await expect
      .poll(() =>
        hester!
          .send(
            'POST',
            '/students',
            { name: 'After The Backup', family: 'violin' },
            { key: 'after-the-backup' },
          )
          .then(({ status }) => status),
      )
      .toBe(200)
    const root = await rootOf(two!)
    await root.query("GRANT ALL ON `jadefell\\_%`.* TO 'jadefell'@'127.0.0.1'")
    await root.end()
    let beside: unknown
    await restore(new URL(two!.url), file, {
      async agree(sentences) {
        expect(sentences.length).toBeGreaterThan(0)
        beside = await restore(new URL(three!.url), file).catch((error: Error) => error.message)
        return true
      },
      ownKey: 'of this installation, which signed nothing yet',
    })
    expect(beside).toBe('Another restore is under way. Nothing was changed.')
    for (const node of [1, 2, 0]) {
      const database = openDatabase(withInFront(cluster.url, node))
      const rows = (sql: string) => rowsOf<Record<string, unknown>>(database, sql)
      expect(await rows('SELECT COUNT(*) AS checks FROM hand_check')).toEqual([{ checks: 20 }])
      expect(await rows("SELECT id FROM student WHERE name = 'After The Backup'")).toEqual([])
      expect(await rows("SHOW DATABASES LIKE 'jadefell\\_%'")).toEqual([])
      // What may not be changed may be so on no node.
      await expect(database.sequelize.query('DELETE FROM audit')).rejects.toThrow('is kept')
      await database.close()
    }
    // Whoever was signed in before signs in again, at either server.
    for (const client of [hester!, elsewhere!]) {
      expect((await client.signIn()).status).toBe(200)
      expect((await client.send('GET', '/students')).status).toBe(200)
    }
  })

  it('have everything after they were stopped, and after the power went for all at once', async () => {
    await Promise.all(servers.map((server) => server.close()))
    servers = []
    const ends = [() => cluster.stop(), () => Promise.all(cluster.nodes.map((node) => node.kill()))]
    for (const end of ends) {
      await end()
      cluster = await startCluster(folder)
      for (const { url } of cluster.nodes) {
        const database = openDatabase(url)
        expect(await rowsOf(database, 'SELECT COUNT(*) AS checks FROM hand_check')).toEqual([{ checks: 20 }])
        await database.close()
      }
    }
  })

  it('lose no acknowledged save and keep none twice while servers, nodes and connections are killed and servers replaced; `npm run torture` goes on longer', async () => {
    const { rounds, saves, longestMs, ...wrongs } = await torture(cluster, {
      faults: ['server', 'connections', 'node', 'cut', 'upgrade'],
      seed: 2,
      small: undefined,
      other: undefined,
      say: () => {},
    })
    expect(wrongs).toEqual({ lost: [], doubled: [], torn: [], wrong: [] })
    expect(rounds).toMatchObject({ server: 1, connections: 1, node: 1, cut: 1, upgrade: 1 })
    // Each of four teachers has had one kept before the first fault and after each.
    expect(saves).toBeGreaterThanOrEqual(24)
    expect(longestMs).toBeLessThan(60_000)
  })
})
