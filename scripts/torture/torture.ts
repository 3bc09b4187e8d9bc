import { QueryTypes } from 'sequelize'
import { seededSource } from '#core'
import { openDatabase } from '../../server/db/database'
import { withInFront } from '../../server/db/hosts'
import { addStudio } from '../../server/features/session/accounts'
import { Client } from '../../server/testing/harness'
import type { Cluster, ClusterNode } from '../database/cluster'
import { cutOff, endConnections, fillDisk, hang, returnBare, slowDisk } from './nodes'
import { openSchool, type Kept } from './school'
import { serverOn } from './web-server'

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
  upgrade: 1,
  slow: 0.5,
  full: 0.5,
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

export interface Storm {
  /** The name of the node whose disk is small enough to be filled; without one none is. */
  readonly small: string | undefined
  /** Where the sources of another version are, for servers that are replaced; without it they are of this one again. */
  readonly other: string | undefined
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
const SAVED_WITHIN_MS = 60_000

/**
 * Teachers save without a pause while in every round a server, a node or all connections of one are ended as a power cut does, a disk is
 * full or slow, or another version takes a server's place; a round is over when each of them has had a save kept since. Then every acknowledged save is looked for on every node.
 *
 * @param options.faults one a round
 * @param options.seed decides whom they meet
 */
export async function torture(
  cluster: Cluster,
  { faults, seed, say, small, other, isOver = () => false }: Storm,
): Promise<Outcome> {
  const source = seededSource(seed)
  const below = (count: number) => Math.floor(source() * count)
  const servers = Array.from({ length: SERVERS }, (_, index) => serverOn(withInFront(cluster.url, index)))
  await Promise.all(servers.map((server) => server.start()))
  const urls = () => servers.map(({ url }) => url)
  const clients = await signedIn(cluster.url, servers[0]!.url, TEACHERS)
  const school = openSchool(clients, urls)
  const done = Object.fromEntries(Object.keys(FAULTS).map((fault) => [fault, 0])) as Record<Fault, number>
  const anyServer = () => servers[below(SERVERS)]!
  let isReplaced = false
  const befall: Record<Fault, (node: ClusterNode) => Promise<void>> = {
    server: () => anyServer().killAndStart(),
    connections: endConnections,
    async node(node) {
      await node.kill()
      await node.start()
    },
    hang,
    cut: (node) => cutOff([node]),
    apart: () => cutOff(cluster.nodes),
    bare: returnBare,
    clock: () => anyServer().jump(source() < 0.5 ? -JUMP_S : JUMP_S),
    /** One server after the other; between them the two versions work side by side. */
    async upgrade() {
      isReplaced = !isReplaced
      for (const server of servers) {
        await server.replace(isReplaced ? other : undefined)
        await school.untilAllSaved(SAVED_WITHIN_MS)
      }
    },
    slow: slowDisk,
    async full() {
      const node = cluster.nodes.find(({ name }) => name === small)
      if (!node) throw new Error('No node has a disk that may be filled.')
      await fillDisk(node)
    },
  }
  try {
    await school.untilAllSaved(SAVED_WITHIN_MS)
    for (const [round, fault] of faults.entries()) {
      if (isOver()) break
      await befall[fault](cluster.nodes[below(cluster.nodes.length)]!)
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

/** So many faults as they come, each as often as its weight, but what this machine does not allow. */
export function drawnFaults(rounds: number, seed: number, without: readonly Fault[] = []): Fault[] {
  const source = seededSource(seed)
  const kinds = (Object.entries(FAULTS) as [Fault, number][]).filter(([fault]) => !without.includes(fault))
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
