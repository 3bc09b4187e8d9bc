import { spawn, type ChildProcess } from 'node:child_process'
import { existsSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { setTimeout as sleep } from 'node:timers/promises'
import mariadb from 'mariadb'
import { QueryTypes } from 'sequelize'
import { seededSource } from '#core'
import { openDatabase } from '../../server/db/database'
import { readAddress, withInFront } from '../../server/db/hosts'
import { addStudio } from '../../server/features/session/accounts'
import { Client } from '../../server/testing/harness'
import type { Cluster, ClusterNode } from '../database/cluster'
import { portToKeep, socketPath } from '../database/private-server'
import { openSchool, type Kept } from './school'

/** What is done to a school in a round, and how often among the others. */
const FAULTS = {
  server: 4,
  connections: 4,
  node: 2,
  hang: 0.5,
  cut: 1,
  apart: 0.5,
  bare: 0.3,
  clock: 1,
} as const
export type Fault = keyof typeof FAULTS

export interface Outcome {
  readonly rounds: Readonly<Record<Fault, number>>
  readonly saves: number
  /** Acknowledged, and not there. */
  readonly lost: readonly string[]
  /** There twice, acknowledged or not. */
  readonly doubled: readonly string[]
  /** Checks with fewer landings than were sent, and nodes that do not have the same. */
  readonly torn: readonly string[]
  readonly wrong: readonly string[]
  readonly longestMs: number
}

/** Of Debian's `libfaketime`: where it is, a server's clock can be set wrong. */
export const FAKED_TIME = '/usr/lib/x86_64-linux-gnu/faketime/libfaketime.so.1'

export interface Storm {
  readonly faults: readonly Fault[]
  readonly seed: number
  readonly say: (line: string) => void
  /** Asked before each round: what was kept until then is looked for all the same. */
  readonly isOver?: () => boolean
}

const SERVERS = 2
const TEACHERS = 4
const LANDINGS = 4
/** A machine whose battery is empty, or that was set to another year's day. */
const JUMP_S = 26 * 3600
const JUMPED_MS = 3000
/** Longer than a node is suspected before the others go on without it. */
const HANG_MS = 5000
const SAVED_WITHIN_MS = 60_000
const READY_MS = 60_000

/**
 * Teachers save without a pause while in every round a server, a node or all connections of one are ended as a power cut does, or a node
 * hangs; a round is over when each of them has had a save kept since. Then every acknowledged save is looked for on every node.
 *
 * @param options.faults one a round
 * @param options.seed decides whom they meet
 */
export async function torture(
  cluster: Cluster,
  { faults, seed, say, isOver = () => false }: Storm,
): Promise<Outcome> {
  const source = seededSource(seed)
  const below = (count: number) => Math.floor(source() * count)
  const servers = Array.from({ length: SERVERS }, (_, index) => serverOn(withInFront(cluster.url, index)))
  await Promise.all(servers.map((server) => server.start()))
  const urls = () => servers.map(({ url }) => url)
  const clients = await signedIn(cluster.url, servers[0]!.url, TEACHERS)
  const school = openSchool(clients, urls)
  const done: Record<Fault, number> = {
    server: 0,
    connections: 0,
    node: 0,
    hang: 0,
    cut: 0,
    apart: 0,
    bare: 0,
    clock: 0,
  }
  try {
    await school.untilAllSaved(SAVED_WITHIN_MS)
    for (const [round, fault] of faults.entries()) {
      if (isOver()) break
      const node = cluster.nodes[below(cluster.nodes.length)]!
      if (fault === 'server') await servers[below(SERVERS)]!.killAndStart()
      else if (fault === 'connections') await endConnections(node)
      else if (fault === 'node') {
        await node.kill()
        await node.start()
      } else if (fault === 'hang') await hang(node)
      else if (fault === 'cut') await cutOff([node])
      else if (fault === 'apart') await cutOff(cluster.nodes)
      else if (fault === 'bare') await returnBare(node)
      else await servers[below(SERVERS)]!.jump(source() < 0.5 ? -JUMP_S : JUMP_S)
      done[fault]++
      await school.untilAllSaved(SAVED_WITHIN_MS)
      for (const server of servers) server.insistOnLife()
      say(
        `round ${round + 1}: ${fault}; ${school.kept.length} saves kept, none waited longer than ${(school.longestMs() / 1000).toFixed(1)} s`,
      )
    }
    await school.end()
    return {
      rounds: done,
      saves: school.kept.length,
      ...(await lookedFor(cluster, school.kept)),
      wrong: school.wrong,
      longestMs: school.longestMs(),
    }
  } finally {
    await Promise.all(servers.map((server) => server.end()))
  }
}

/** So many faults as they come, each as often as its weight. */
export function drawnFaults(rounds: number, seed: number): Fault[] {
  const source = seededSource(seed)
  const kinds = Object.entries(FAULTS) as [Fault, number][]
  const whole = kinds.reduce((sum, [, weight]) => sum + weight, 0)
  return Array.from({ length: rounds }, () => {
    let left = source() * whole
    return (kinds.find(([, weight]) => (left -= weight) < 0) ?? kinds[0]!)[0]
  })
}

async function signedIn(databaseUrl: string, url: string, count: number): Promise<Client[]> {
  const [email, password] = ['torture@harbour.example', 'ferry-steps-at-noon']
  const database = openDatabase(databaseUrl)
  await database.inTransaction((transaction) =>
    addStudio(database, transaction, {
      studioName: 'Storm Harbour Strings',
      teacherName: 'Ferris Combe',
      email,
      password,
      now: new Date(),
    }),
  )
  await database.close()
  return Promise.all(
    Array.from({ length: count }, async () => {
      const client = new Client(url, email, password)
      await client.signIn()
      return client
    }),
  )
}

/** A web server in a process of its own, always at the same address. */
function serverOn(databaseUrl: string) {
  let [port, child]: [number, ChildProcess | undefined] = [0, undefined]
  let said = ''
  const clock = join(mkdtempSync(join(tmpdir(), 'jadefell-clock-')), 'offset')
  writeFileSync(clock, '+0')
  /** One that ended without being asked to is a fault of its own, however well the others went on. */
  let diedOf: string | undefined
  async function start(): Promise<void> {
    port ||= await portToKeep()
    child = spawn(process.execPath, ['--import', 'tsx', 'server/serve.ts'], {
      stdio: ['ignore', 'ignore', 'pipe'],
      env: {
        ...process.env,
        PORT: String(port),
        HOST: '127.0.0.1',
        DATABASE_URL: databaseUrl,
        SESSION_SECRET: 'the secret of a school in a storm',
        LOG_LEVEL: 'silent',
        ...(existsSync(FAKED_TIME)
          ? {
              LD_PRELOAD: FAKED_TIME,
              FAKETIME_TIMESTAMP_FILE: clock,
              FAKETIME_NO_CACHE: '1',
              FAKETIME_DONT_FAKE_MONOTONIC: '1',
            }
          : {}),
      },
    })
    said = ''
    child.stderr?.on('data', (chunk: Buffer) => (said = (said + chunk.toString()).slice(-4000)))
    child.once('exit', (code) => {
      if (code !== null) diedOf = `A server ended by itself (${code}):\n${said}`
    })
    const until = performance.now() + READY_MS
    for (;;) {
      insistOnLife()
      const reply = await fetch(`http://127.0.0.1:${port}/api/health`).catch(() => undefined)
      if (reply) return
      if (performance.now() > until) throw new Error('A server did not start.')
      await sleep(50)
    }
  }
  async function kill(): Promise<void> {
    if (!child || child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((resolve) => child?.once('exit', resolve))
    child.kill('SIGKILL')
    await gone
  }
  function insistOnLife(): void {
    if (diedOf !== undefined) throw new Error(diedOf)
  }
  return {
    get url() {
      return `http://127.0.0.1:${port}`
    },
    start,
    insistOnLife,
    /** Its clock is wrong for a while. */
    async jump(seconds: number) {
      writeFileSync(clock, `${seconds > 0 ? '+' : ''}${seconds}`)
      await sleep(JUMPED_MS)
      writeFileSync(clock, '+0')
    },
    async killAndStart() {
      await kill()
      await start()
    },
    async end() {
      await kill()
      rmSync(dirname(clock), { recursive: true })
    },
  }
}

async function bare({ url }: ClusterNode) {
  const { hosts, ...who } = readAddress(url)!
  return mariadb.createConnection({ ...who, ...hosts[0] })
}

/** Every connection of ours to this node, whatever it is at. */
async function endConnections(node: ClusterNode): Promise<void> {
  const connection = await bare(node)
  const open = await connection.query<{ id: bigint }[]>(
    'SELECT id FROM information_schema.processlist WHERE user = SUBSTRING_INDEX(USER(), "@", 1) AND id <> CONNECTION_ID()',
  )
  // One that has ended meanwhile cannot be ended.
  for (const { id } of open) await connection.query(`KILL ${id}`).catch(() => undefined)
  await connection.end()
}

/** It says nothing, and takes nothing, as behind a cut cable; then it is there again, and finds that the others went on. */
async function hang(node: ClusterNode): Promise<void> {
  process.kill(node.pid!, 'SIGSTOP')
  await sleep(HANG_MS)
  process.kill(node.pid!, 'SIGCONT')
  await untilSynced(node)
}

async function untilSynced(node: ClusterNode): Promise<void> {
  const until = performance.now() + READY_MS
  for (;;) {
    // One that finds itself left out may end: its service starts it again.
    if (node.pid === undefined) await node.start()
    const state = await bare(node)
      .then(async (connection) => {
        const [row] = await connection.query<{ Value: string }[]>(
          "SHOW GLOBAL STATUS LIKE 'wsrep_local_state_comment'",
        )
        await connection.end()
        return row?.Value
      })
      .catch(() => undefined)
    if (state === 'Synced') return
    if (performance.now() > until) throw new Error(`${node.name} did not come back: ${state}`)
    await sleep(100)
  }
}

/**
 * These nodes hear nobody of their cluster, as behind a cut cable, and then again: by Galera's own means for trying it. One of three is left
 * by the others; of three that are all apart none may keep anything, and afterwards they are one again.
 */
async function cutOff(nodes: readonly ClusterNode[]): Promise<void> {
  const isolate = async (node: ClusterNode, value: 0 | 1) => {
    const connection = await mariadb.createConnection({
      socketPath: socketPath(node.data),
      user: 'root',
      password: node.data.secrets.rootPassword,
    })
    await connection.query(`SET GLOBAL wsrep_provider_options = 'gmcast.isolate=${value}'`)
    await connection.end()
  }
  await Promise.all(nodes.map((node) => isolate(node, 1)))
  await sleep(HANG_MS)
  await Promise.all(nodes.map((node) => isolate(node, 0)))
  for (const node of nodes) await untilSynced(node)
}

/** A node that was away so long that nobody has what it missed, or whose disk was replaced: it is given everything. */
async function returnBare(node: ClusterNode): Promise<void> {
  await node.kill()
  rmSync(node.data.file('mariadb'), { recursive: true })
  // Nobody replaces a disk before the others have noticed.
  await sleep(HANG_MS)
  await node.start()
}

/** What every node has of what was acknowledged. */
async function lookedFor(
  { nodes, url }: Cluster,
  kept: readonly Kept[],
): Promise<Pick<Outcome, 'lost' | 'doubled' | 'torn'>> {
  const [lost, doubled, torn]: string[][] = [[], [], []]
  let all: string | undefined
  for (const [index, node] of nodes.entries()) {
    // As one of a cluster, so that it has taken in what the others kept.
    const database = openDatabase(withInFront(url, index))
    const rows = <Row extends object>(sql: string) =>
      database.sequelize.query<Row>(sql, { type: QueryTypes.SELECT })
    const there = {
      student: await rows<{ id: string; mark: string }>(
        "SELECT id, name AS mark FROM student WHERE name LIKE 'pupil % of teacher %'",
      ),
      hand_check: await rows<{ id: string; mark: string }>(
        "SELECT id, note AS mark FROM hand_check WHERE note LIKE 'check % of pupil %'",
      ),
    }
    const own = Object.values(there)
      .flatMap((found) => found.map(({ id }) => id))
      .sort()
      .join()
    if (own !== (all ??= own)) torn!.push(`${node.name} has other rows than ${nodes[0]!.name}`)
    for (const [table, found] of Object.entries(there)) {
      const ids = new Set(found.map(({ id }) => id))
      for (const one of kept)
        if (one.table === table && !ids.has(one.id)) lost!.push(`${one.mark} on ${node.name}`)
      const marks = new Set<string>()
      for (const { mark } of found) {
        if (marks.has(mark)) doubled!.push(`${mark} on ${node.name}`)
        marks.add(mark)
      }
    }
    const short = await rows<{ mark: string; n: number }>(
      `SELECT c.note AS mark, COUNT(l.check_id) AS n FROM hand_check c LEFT JOIN landing l ON l.check_id = c.id WHERE c.note LIKE 'check % of pupil %'
       GROUP BY c.id, c.note HAVING n <> ${LANDINGS}`,
    )
    torn!.push(...short.map(({ mark, n }) => `${mark} on ${node.name}: ${n} landings`))
    await database.close()
  }
  return { lost: lost!, doubled: doubled!, torn: torn! }
}
