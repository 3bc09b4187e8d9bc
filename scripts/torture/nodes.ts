import { spawn } from 'node:child_process'
import { closeSync, openSync, rmSync, statfsSync, writeSync } from 'node:fs'
import { setTimeout as sleep } from 'node:timers/promises'
import mariadb from 'mariadb'
import { readAddress } from '../../server/db/hosts'
import type { ClusterNode } from '../database/cluster'
import { socketPath } from '../database/private-server'

/** Longer than a node is suspected before the others go on without it. */
const HANG_MS = 5000
const READY_MS = 60_000
/** How long a disk that is slow takes more for whatever is to be on it for good, µs, and for how long it is so. */
const SLOW_US = 200_000
const SLOW_MS = 8000

async function bare({ url }: ClusterNode) {
  const { hosts, ...who } = readAddress(url)!
  return mariadb.createConnection({ ...who, ...hosts[0] })
}

/** Every connection of ours to this node, whatever it is at. */
export async function endConnections(node: ClusterNode): Promise<void> {
  const connection = await bare(node)
  const open = await connection.query<{ id: bigint }[]>(
    'SELECT id FROM information_schema.processlist WHERE user = SUBSTRING_INDEX(USER(), "@", 1) AND id <> CONNECTION_ID()',
  )
  // One that has ended meanwhile cannot be ended.
  for (const { id } of open) await connection.query(`KILL ${id}`).catch(() => undefined)
  await connection.end()
}

/** It says nothing, and takes nothing, as behind a cut cable; then it is there again, and finds that the others went on. */
export async function hang(node: ClusterNode): Promise<void> {
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
export async function cutOff(nodes: readonly ClusterNode[]): Promise<void> {
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
export async function returnBare(node: ClusterNode): Promise<void> {
  await node.kill()
  rmSync(node.data.file('mariadb'), { recursive: true })
  // Nobody replaces a disk before the others have noticed.
  await sleep(HANG_MS)
  await node.start()
}

/**
 * A node's disk is full for a while, to the last byte. What it could not write the others have: it finds itself inconsistent and stays out
 * of the cluster until somebody has made room and started it again, as docs/cluster.md says.
 */
export async function fillDisk(node: ClusterNode): Promise<void> {
  const filler = node.data.file('filler')
  const file = openSync(filler, 'w')
  try {
    const piece = Buffer.alloc(1024 * 1024)
    for (let size = piece.length; size >= 1; size >>= 4) fill(file, piece.subarray(0, size))
    if (statfsSync(node.data.path).bavail > 0) throw new Error(`The disk of ${node.name} is not full.`)
    await sleep(HANG_MS)
  } finally {
    closeSync(file)
    rmSync(filler)
  }
  await node.stop()
  await node.start()
}

function fill(file: number, piece: Buffer): void {
  try {
    for (;;) writeSync(file, piece)
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOSPC') throw error
  }
}

/** Whatever a node wants to be on its disk for good takes a fifth of a second more. */
export async function slowDisk(node: ClusterNode): Promise<void> {
  const delays = spawn(
    'strace',
    [
      ...['-f', '-qq', '-o', '/dev/null', '-p', String(node.pid)],
      ...['-e', 'trace=fsync,fdatasync', '-e', `inject=fsync,fdatasync:delay_enter=${SLOW_US}`],
    ],
    { stdio: ['ignore', 'ignore', 'inherit'] },
  )
  const gone = new Promise((resolve) => delays.once('exit', resolve))
  await Promise.race([
    sleep(SLOW_MS),
    gone.then(() =>
      Promise.reject(new Error('strace ended before it was told to: may it trace others here?')),
    ),
  ])
  delays.kill('SIGTERM')
  await gone
  await untilSynced(node)
}
