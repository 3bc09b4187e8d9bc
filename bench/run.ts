// `npm run bench`: prints how our ways compare with the barest way to the same end, in one run. Fails where a ratio is above
// its aim.
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { openDataDirectory } from '../scripts/database/data-directory'
import { databasePrograms } from '../scripts/database/programs'
import { startPrivateServer } from '../scripts/database/private-server'
import { apiAgainstSql } from './api'
import { atlasAgainstEnumeration } from './atlas'
import { benchAgainstLoop, chartAgainstLoop } from './chart'
import { fingeringAgainstBare } from './fingering'
import { listsAgainstSql } from './lists'
import { redrawAgainstFrame } from './redraw'
import type { Ratio } from './ratio'
import { roomsAgainstLimit } from './rooms'
import { startBenchServer } from './server'

const path = mkdtempSync(join(tmpdir(), 'jadefell-bench-'))
const server = await startPrivateServer(openDataDirectory(path), databasePrograms, () => {})
const app = await startBenchServer(server.url)
try {
  const ratios: Ratio[] = []
  console.log('| measured | ours, ms | peer, ms | ratio | aim |')
  console.log('|---|---:|---:|---:|---:|')
  // Each as it is measured: a run that is cut off has said what it knew.
  for (const measure of [
    () => [chartAgainstLoop(), benchAgainstLoop()],
    atlasAgainstEnumeration,
    fingeringAgainstBare,
    // The large studio is the demo over and over, as it is before anything is saved to it.
    () => listsAgainstSql(app),
    () => apiAgainstSql(app),
    () => roomsAgainstLimit(app),
    redrawAgainstFrame,
  ])
    for (const one of await measure()) {
      const { name, oursMs, peerMs, ratio, aim } = one
      console.log(
        `| ${name} | ${oursMs.toFixed(1)} | ${peerMs.toFixed(0)} | ${ratio.toFixed(2)} | ≤ ${aim} |`,
      )
      ratios.push(one)
    }
  const above = ratios.filter(({ ratio, aim }) => !(ratio <= aim))
  for (const { name, ratio, aim } of above)
    console.error(`Above its aim of ${aim}: ${name}, ${ratio.toFixed(2)}.`)
  if (above.length > 0) process.exitCode = 1
} finally {
  await app.close()
  await server.stop()
  rmSync(path, { recursive: true })
}
