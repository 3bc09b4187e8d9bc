// `npm run torture -- [--rounds 1000] [--seed 1] [--only cut]`: a school that works while its servers, nodes and connections are killed, round by round.
import { existsSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { openDatabase } from '../../server/db/database'
import { migrate } from '../../server/db/migrate'
import { startCluster } from '../database/cluster'
import { aptInstall } from '../lib/apt'
import { drawnFaults, FAKED_TIME, torture, type Fault } from './torture'

const { values } = parseArgs({
  options: {
    rounds: { type: 'string', default: '1000' },
    seed: { type: 'string', default: '1' },
    only: { type: 'string' },
  },
})
if (!existsSync(FAKED_TIME)) aptInstall(['libfaketime'], 'Without it no clock jumps.')
let isOver = false
process.once('SIGINT', () => {
  console.log('after this round it is looked for what was kept')
  isOver = true
})
const folder = mkdtempSync(join(tmpdir(), 'jadefell-torture-'))
const cluster = await startCluster(folder)
try {
  const database = openDatabase(cluster.url)
  await migrate(database.sequelize)
  await database.close()
  const outcome = await torture(cluster, {
    faults: values.only
      ? Array<Fault>(Number(values.rounds)).fill(values.only as Fault)
      : drawnFaults(Number(values.rounds), Number(values.seed)),
    seed: Number(values.seed),
    say: (line) => console.log(line),
    isOver: () => isOver,
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
  rmSync(folder, { recursive: true })
}
