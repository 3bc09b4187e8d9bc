// `npm run torture -- [--rounds 1000] [--seed 1] [--only cut] [--other <revision>]`: a school that works while its servers, nodes, disks and
// connections fail, round by round, and while its servers are replaced by those of another revision.
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, rmSync, symlinkSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { openDatabase } from '../../server/db/database'
import { migrate } from '../../server/db/migrate'
import { startCluster } from '../database/cluster'
import { aptInstall, findProgram } from '../lib/apt'
import { drawnFaults, torture, type Fault } from './torture'
import { FAKED_TIME } from './web-server'

const SMALL_DISK = '640m'
const { values } = parseArgs({
  options: {
    rounds: { type: 'string', default: '1000' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string' },
    other: { type: 'string' },
  },
})
if (!existsSync(FAKED_TIME)) aptInstall(['libfaketime'], 'Without it no clock jumps.')
if (!findProgram('strace')) aptInstall(['strace'], 'Without it no disk is slow.')
let isOver = false
process.once('SIGINT', () => {
  console.log('after this round it is looked for what was kept')
  isOver = true
})
const folder = mkdtempSync(join(tmpdir(), 'jadefell-torture-'))
const small = smallDisk('node-3')
if (small === undefined) console.log('no disk is filled: only an administrator may mount a small one')
const other = values.other === undefined ? undefined : sourcesOf(values.other)
const cluster = await startCluster(folder)
try {
  const database = openDatabase(cluster.url)
  await migrate(database.sequelize)
  await database.close()
  const outcome = await torture(cluster, {
    faults: values.only
      ? Array<Fault>(Number(values.rounds)).fill(values.only as Fault)
      : drawnFaults(Number(values.rounds), Number(values.seed), small === undefined ? ['full'] : []),
    seed: Number(values.seed),
    say: (line) => console.log(line),
    isOver: () => isOver,
    small,
    other,
  })
  const { rounds, saves, longestMs, ...faults } = outcome
  console.log(
    `\n${saves} saves through ${JSON.stringify(rounds)}; the longest took ${(longestMs / 1000).toFixed(1)} s.`,
  )
  for (const [name, found] of Object.entries(faults)) {
    console.log(`${name}: ${found.length}`)
    for (const one of found.slice(0, 20)) console.error(`  ${one}`)
    if (found.length > 0) process.exitCode = 1
  }
} finally {
  await cluster.stop()
  if (small !== undefined) spawnSync('umount', ['--lazy', join(folder, small)])
  if (other !== undefined) git('worktree', 'remove', '--force', other)
  rmSync(folder, { recursive: true })
}

/** A disk of its own for a node, in memory, with room for what Galera and InnoDB lay out and a school's day. */
function smallDisk(name: string): string | undefined {
  const path = join(folder, name)
  mkdirSync(path, { mode: 0o700 })
  const { status } = spawnSync('mount', ['-t', 'tmpfs', '-o', `size=${SMALL_DISK},mode=700`, 'tmpfs', path])
  return status === 0 ? name : undefined
}

/** Another revision's sources, with the packages of this one. */
function sourcesOf(revision: string): string {
  const path = join(folder, 'other')
  git('worktree', 'add', '--detach', path, revision)
  symlinkSync(join(import.meta.dirname, '../../node_modules'), join(path, 'node_modules'))
  return path
}

function git(...args: string[]): void {
  const { status, stderr } = spawnSync('git', args, { cwd: import.meta.dirname, encoding: 'utf8' })
  if (status !== 0) throw new Error(`git ${args.join(' ')}: ${stderr}`)
}
